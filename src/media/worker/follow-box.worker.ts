import '@core/no-eval';
import type { Track } from '@core/follow/evidence';
import { troubleOf } from '@core/trouble/trouble';
import { type BoxRequest, followBox } from '../follow/box-task';
import { serveTask } from './serve-task';

serveTask<BoxRequest, Track>(followBox, (error, { source }) =>
  troubleOf(error, 'damaged', { file: source.fileName }),
);
