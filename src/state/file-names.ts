import { PLAIN_PATTERN, patternProblem } from '@core/job/export-name';
import { setting } from './setting';

/** The pattern that exported files are named by. */
export const fileNames = setting('file-names', PLAIN_PATTERN as string, (stored) =>
  patternProblem(stored) === null ? stored : null,
);

export const namePattern = (): string => fileNames.use.getState().value;
