import { type Gap, GAPS, PLAIN_GAP } from '@core/posting/gaps';
import { setting } from '../setting';

/** The gap that a person keeps between posts of one account, in hours. */
export const gap = setting<Gap>('gap', PLAIN_GAP, (stored) => GAPS.find((known) => known === stored) ?? null);
