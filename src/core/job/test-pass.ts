import { SHIPPED_SHEETS } from '../outlets/shipped';
import type { AnalysisResult } from '../pass/pass';

/** Makes the analysis of the test master: one shot, no bars, no combing. */
export function testPass(change: Partial<AnalysisResult> = {}): AnalysisResult {
  return {
    schemaVersion: 1,
    fingerprint: 'a'.repeat(64),
    bitsBySecond: [],
    shots: [{ frame: 0, start: null, live: null }],
    live: null,
    liveConfidence: 1,
    combed: 0,
    topFirst: null,
    motion: [],
    sound: null,
    otherTracks: [],
    proxy: { width: 960, height: 540, bytes: 1 },
    grey: { width: 160, height: 90, frames: 984 },
    strip: { tileWidth: 96, tileHeight: 54 },
    ...change,
  };
}

/**
 * Makes the context that jobs are checked with: the sheets that ship, and the same analysis for every master,
 * or none yet.
 */
export const createPassLookup = (pass: AnalysisResult | null) => ({
  sheets: SHIPPED_SHEETS,
  passOf: () => pass,
});

/** Every master was looked at, and nothing was found. */
export const LOOKED = createPassLookup(testPass());
