import '@core/no-eval';
import type { Followed } from '@core/follow/solve';
import { troubleOf } from '@core/trouble/trouble';
import { findPaths, type PathRequest } from '../follow/path-task';
import { serveTask } from './serve-task';

serveTask<PathRequest, (Followed | null)[]>(findPaths, (error) =>
  troubleOf(error, 'worker-ended', { detail: String(error) }),
);
