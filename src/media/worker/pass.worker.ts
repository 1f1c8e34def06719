import type { Pass } from '@core/pass/pass';
import { passOver, type PassRequest } from '../pass/pass-task';
import { serveTask } from './serve-task';

serveTask<PassRequest, Pass>('damaged', passOver, ({ source }) => ({ file: source.fileName }));
