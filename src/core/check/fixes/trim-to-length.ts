import type { Cut } from '../../cut/cut';
import type { Fix } from '../fix';

/** Trims the end of a clip. */
export const trimToLength: Fix<{
  /** Seconds. */
  limit: number;
  /** What is left of the cut. */
  cut: Cut;
}> = {
  safe: false,
  label: ({ limit }) => `Trim to ${limit} s`,
  command: ({ cut }) => ({ type: 'set-cut', act: 'trim', cut }),
};
