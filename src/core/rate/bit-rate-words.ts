import { bitsLabel, bytesLabel } from '../figures/figures';
import type { BitRateChoice } from './bit-rate';
import type { Rate } from './encoding';

/** Why the worked-out bit rate is what it is. */
export function bitRateWords(choice: BitRateChoice): string {
  const words: Record<BitRateChoice['reason'], string> = {
    picture: 'by the canvas size and frame rate',
    floor: 'the least that looks clean at this size',
    trial: 'measured on this clip and outlet',
    master: 'capped at the master’s bit rate',
    cap: "held down by the outlet's file cap",
  };
  return `${bitsLabel(choice.bits)}: ${words[choice.reason]}.`;
}

/** How bits are shared out, in a few words. @param workedOut video bits a second that are worked out. */
export function formatRateMode(rate: Rate, workedOut: number): string {
  switch (rate.kind) {
    case 'worked-out':
      return `${bitsLabel(workedOut)}, calculated`;
    case 'constant':
      return `${bitsLabel(rate.bits)}, constant`;
    case 'variable':
      return bitsLabel(rate.bits);
    case 'quality':
      return `quantiser ${rate.quantiser}`;
    case 'size':
      return rate.each === 'file' ? bytesLabel(rate.bytes) : `${bytesLabel(rate.bytes)} a minute`;
  }
}
