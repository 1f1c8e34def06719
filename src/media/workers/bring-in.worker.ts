import type { Master } from '@core/job/master';
import { bringIn, type BringInRequest } from '../bring-in-task';
import { serveTask } from '../serve-task';

serveTask<BringInRequest, Master>('bring-in-failed', bringIn, ({ file }) => ({ file: file.name }));
