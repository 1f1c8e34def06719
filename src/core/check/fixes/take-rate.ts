import { type FrameRate, rateLabel } from '../../time/frame-rate';
import type { Fix } from '../fix';

/** Runs the canvas at another rate. */
export const takeRate: Fix<{ rate: FrameRate }> = {
  safe: true,
  label: ({ rate }) => `Take ${rateLabel(rate)} fps`,
  command: ({ rate }) => ({ type: 'set-rate', rate }),
};
