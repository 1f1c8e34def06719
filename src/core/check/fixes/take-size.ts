import type { Size } from '../../picture/size';
import type { Fix } from '../fix';

/** Gives the canvas the size that its placement asks for. */
export const takeSize: Fix<{
  /** The placement's key. */
  placement: string;
  size: Size;
}> = {
  safe: true,
  label: () => 'Use the size it asks for',
  command: ({ placement, size }) => ({ type: 'choose-placement', placement, size }),
};
