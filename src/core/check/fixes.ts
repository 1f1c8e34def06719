import type { Command } from '../job/commands/commands';
import type { Fix } from './fix';
import { addTag } from './fixes/add-tag';
import { fillCanvas } from './fixes/fill-canvas';
import { repair } from './fixes/repair';
import { sayNotForChildren } from './fixes/say-not-for-children';
import { setAudience } from './fixes/set-audience';
import { setBits } from './fixes/set-bits';
import { setLoudness } from './fixes/set-loudness';
import { shortenWords } from './fixes/shorten-words';
import { takeMasterEdges } from './fixes/take-master-edges';
import { takeRate } from './fixes/take-rate';
import { takeShotEdges } from './fixes/take-shot-edges';
import { takeSize } from './fixes/take-size';
import { trimToLength } from './fixes/trim-to-length';

/** Every way out of a finding: a file and a line each. */
const FIXES = {
  'add-tag': addTag,
  'fill-canvas': fillCanvas,
  repair,
  'say-not-for-children': sayNotForChildren,
  'set-audience': setAudience,
  'set-bits': setBits,
  'set-loudness': setLoudness,
  'shorten-words': shortenWords,
  'take-master-edges': takeMasterEdges,
  'take-rate': takeRate,
  'take-shot-edges': takeShotEdges,
  'take-size': takeSize,
  'trim-to-length': trimToLength,
};

type Fixes = typeof FIXES;

/** A fix with the values that this one needs. */
export type OfferedFix = {
  [F in keyof Fixes]: { fix: F; values: Fixes[F] extends Fix<infer Values> ? Values : never };
}[keyof Fixes];

/** Fix and values belong together in an offer; the table knows each. */
const toFix = ({ fix }: OfferedFix): Fix<unknown> => FIXES[fix] as Fix<unknown>;

/** Label of a fix's button. */
export const fixLabel = (offered: OfferedFix): string => toFix(offered).label(offered.values);

/** Tells whether a fix takes nothing away that a person made or chose. */
export const isSafe = (offered: OfferedFix): boolean => toFix(offered).safe;

/** The change that a fix makes. */
export const fixCommand = (offered: OfferedFix): Command => toFix(offered).command(offered.values);
