import type { Cut } from '../../cut/cut';
import type { Fix } from '../fix';

/** Trims the end of a clip. */
export const trimToLength: Fix<{
  /** Seconds. */
  limit: number;
  /** Cut after the trim. */
  cut: Cut;
}> = {
  safe: false,
  label: ({ limit }) => `Trim to ${limit} s`,
  command: ({ cut }) => ({ type: 'set-cut', act: 'trim', cut }),
};
