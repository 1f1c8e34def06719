import { exportRule, outcome } from '../rule';

interface Mapped {
  /** The system by its name. */
  system: string;
}
const mapped = ({ system }: Mapped): string => `${system}, made BT.709`;

const HDR: Record<string, string> = { pq: 'PQ', hlg: 'HLG' };
const WIDE: Record<string, string> = { bt2020: 'BT.2020', smpte432: 'P3' };

/** What the export makes of colour that is not the clip's own. */
export const colourRule = exportRule({
  name: 'Colour',
  outcomes: {
    hdr: outcome<Mapped>(
      ({ system }) =>
        `The master is in high dynamic range (${system}). The clip is in standard range: light over the knee is ` +
        'rolled off to 100 cd/m² by ITU-R BT.2390. The preview shows it so; look at the bright shots.',
      mapped,
    ),
    wide: outcome<Mapped>(
      ({ system }) =>
        `The master has the colours of ${system}. They are converted to BT.709; what that cannot show is clipped.`,
      mapped,
    ),
    plain: outcome<object>(
      () => 'The clip is in BT.709, limited range, as outlets expect.',
      () => 'BT.709',
    ),
  },
  check({ sources }) {
    for (const { colour } of sources) {
      const system = HDR[colour.transfer ?? ''];
      if (system) return { severity: 'note', code: 'hdr', values: { system } };
    }
    for (const { colour } of sources) {
      const system = WIDE[colour.primaries ?? (colour.matrix?.startsWith('bt2020') ? 'bt2020' : '')];
      if (system) return { severity: 'note', code: 'wide', values: { system } };
    }
    return { severity: 'pass', code: 'plain', values: {} };
  },
});
