import type { Master } from '@core/master/master';
import { bringIn, type BringInRequest } from '../read/bring-in-task';
import { serveTask } from './serve-task';

serveTask<BringInRequest, Master>('bring-in-failed', bringIn, ({ file }) => ({ file: file.name }));
