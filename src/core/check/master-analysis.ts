import type { Shot } from '../cut/shot';
import type { Master } from '../master/master';
import type { Repairs } from '../master/repairs';
import type { Source } from '../master/source';
import type { AnalysisResult } from '../pass/pass';

/** A master of the clip, and what is known of its file. */
export interface MasterAnalysis {
  master: Master;
  repairs: Repairs;
  source: Source;
  shots: readonly Shot[];
  /** Null until the master was looked at once. */
  pass: AnalysisResult | null;
}

/** Finds the analysis of a master by its fingerprint; null before it is done. */
export type AnalysisLookup = (fingerprint: string) => AnalysisResult | null;
