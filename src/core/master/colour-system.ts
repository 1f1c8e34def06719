import type { Master } from './master';

/** A system of light or colour that is not the clip's own. */
export interface ColourSystem {
  name: string;
  /** `hdr`: its light reaches past standard range. `wide`: it has colours that BT.709 lacks. */
  kind: 'hdr' | 'wide';
}

const HDR: Record<string, string> = { pq: 'PQ', hlg: 'HLG' };
const WIDE: Record<string, string> = { bt2020: 'BT.2020', smpte432: 'P3' };

/** Finds the colour system that a master's picture is converted from, or null where it is BT.709's already. */
export function colourSystem({ colour }: Pick<Master, 'colour'>): ColourSystem | null {
  const light = HDR[colour.transfer ?? ''];
  if (light) return { name: light, kind: 'hdr' };
  const wide = WIDE[colour.primaries ?? (colour.matrix?.startsWith('bt2020') ? 'bt2020' : '')];
  return wide ? { name: wide, kind: 'wide' } : null;
}
