import { bitsLabel } from '../figures/figures';
import type { BitRateChoice } from './bit-rate';

/** Why the worked-out bit rate is what it is. */
export function bitRateWords(choice: BitRateChoice): string {
  const words: Record<BitRateChoice['reason'], string> = {
    picture: 'by the canvas size and frame rate',
    floor: 'the least that looks clean at this size',
    master: 'limited to the bit rate of the master: more would add nothing',
    cap: "held down by the outlet's file cap",
  };
  return `${bitsLabel(choice.bits)}: ${words[choice.reason]}.`;
}
