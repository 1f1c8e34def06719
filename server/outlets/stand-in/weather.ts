import { z } from 'zod';

/** Faults that an outlet's stand-in can be made to show, to try what becomes of posts. */
export const WEATHERS = {
  fair: 'Fair: all goes well',
  slow: 'Slow: each answer takes a second',
  dropping: 'Dropping: a line breaks now and then',
  full: 'Full: there is no room for uploads',
  busy: 'Busy: “too many requests”, for two seconds each',
  failing: 'Failing: clips cannot be processed',
} as const;
export type WeatherName = keyof typeof WEATHERS;
export const weatherSchema = z.enum(Object.keys(WEATHERS) as [WeatherName, ...WeatherName[]]);

/** How long somebody is told to wait where it is busy, in seconds. */
export const BUSY_SECONDS = 2;

/** The weather at one outlet, until it is changed or the server ends. */
export class Weather {
  now: WeatherName = 'fair';
}
