import { colourSystem } from '../../master/colour-system';
import { exportRule, outcome } from '../rule';

interface MappedValues {
  /** The system by its name. */
  system: string;
}
const describeMapped = ({ system }: MappedValues): string => `${system}, made BT.709`;

/** Checks what the export makes of colour that is not the clip's own. */
export const colourRule = exportRule({
  name: 'Colour',
  reads: ['sources'],
  outcomes: {
    hdr: outcome<MappedValues>(
      ({ system }) =>
        `The master is in high dynamic range (${system}). The clip is in standard range: light over the knee is ` +
        'rolled off to 100 cd/m² by ITU-R BT.2390. The master page shows both; look at the bright shots.',
      describeMapped,
    ),
    wide: outcome<MappedValues>(
      ({ system }) =>
        `The master has the colours of ${system}. They are converted to BT.709; what that cannot show is clipped.`,
      describeMapped,
    ),
    guessed: outcome<object>(
      () =>
        'The master does not say which colours it has: they are assumed to be BT.709 or BT.601, by its size. Look at skin ' +
        'and sky; if they are off, set the colours on the master page.',
      () => 'not stated, assumed by size',
    ),
    plain: outcome<object>(
      () => 'The clip is in BT.709, limited range, as outlets expect.',
      () => 'BT.709',
    ),
  },
  check({ sources }) {
    const systems = sources.flatMap((source) => colourSystem(source) ?? []);
    const worst = systems.find(({ kind }) => kind === 'hdr') ?? systems[0];
    if (worst) return { severity: 'note', code: worst.kind, values: { system: worst.name } };
    if (sources.some(({ colour }) => colour.matrix === null))
      return { severity: 'note', code: 'guessed', values: {} };
    return { severity: 'pass', code: 'plain', values: {} };
  },
});
