import { serveTask } from './serve-task';
import { makeStills, type StillsRequest } from '../play/stills-task';

serveTask<StillsRequest, number>('damaged', makeStills, ({ source }) => ({ file: source.fileName }));
