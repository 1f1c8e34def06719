import { z } from 'zod';

/** Faults that an outlet's stand-in can be made to show, to try what becomes of posts. */
export const INJECTED_FAULTS = {
  fair: 'Fair: all goes well',
  slow: 'Slow: each answer takes a second',
  dropping: 'Dropping: a line breaks now and then',
  full: 'Full: there is no room for uploads',
  busy: 'Busy: “too many requests”, for two seconds each',
  failing: 'Failing: clips cannot be processed',
} as const;
export type FaultName = keyof typeof INJECTED_FAULTS;
export const weatherSchema = z.enum(Object.keys(INJECTED_FAULTS) as [FaultName, ...FaultName[]]);

/** How long somebody is told to wait where it is busy, in seconds. */
export const BUSY_SECONDS = 2;

/** The weather at one outlet, until it is changed or the server ends. */
export class FaultInjection {
  now: FaultName = 'fair';
}
