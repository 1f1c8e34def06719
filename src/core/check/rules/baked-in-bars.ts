import { toRateChange } from '../../job/retime';
import { toBoundaries } from '../../cut/shots';
import { listFoundInMaster, listFoundInShots, isReachingPast } from '../../diagnosis/found-edges';
import { formatCount, percent } from '../../figures/figures';
import type { RenderPlan } from '../../render/plan';
import { exportRule, outcome } from '../rule';
import type { MasterAnalysis } from '../master-analysis';

interface Shots {
  shots: number;
  of: number;
}
/** Shots of one master, with its name where the clip has several. */
interface OfMaster extends Shots {
  file: string | null;
}
interface FoundBars extends OfMaster {
  /** How sure the look was, 0…1. */
  sure: number;
}
const figures = ({ shots, of }: Shots): string => `${shots} of ${formatCount(of, 'shot')}`;

/** A shot whose picture reaches past what was found to be picture. */
interface BarValues {
  shot: string;
  frame: number;
  look: MasterAnalysis;
  /** True when the edges were found over the whole master, false for this shot alone. */
  whole: boolean;
}

/** Bars that the master brings with it, shot by shot, from the look at the master. */
export const bakedInBarsRule = exportRule({
  name: 'Bars in the master',
  reads: ['looks', 'plan'],
  outcomes: {
    unknown: outcome<object>(
      () => 'Not known yet: the master is still being analysed. An export waits for that.',
      () => 'not known yet',
    ),
    whole: outcome<FoundBars>(
      ({ sure, ...shots }) =>
        `${shots.file ?? 'The master'} has black edges (${percent(sure)} sure) that come into ${figures(shots)}. ` +
        'Use the edges that were found, or say on the job sheet that they are part of the picture.',
      figures,
    ),
    shots: outcome<OfMaster>(
      (values) =>
        `${figures(values)} of ${values.file ?? 'the master'} ${values.shots === 1 ? 'has black edges of its own' : 'have black edges of their own'}. Use the edges that were found.`,
      figures,
    ),
    kept: outcome<Shots>(
      (values) => `You set the live area further out than the edges that were found, in ${figures(values)}.`,
      figures,
    ),
    clear: outcome<object>(
      () => 'No bars of the master come into the clip.',
      () => 'no bars',
    ),
  },
  check({ looks, plan }) {
    if (looks.some((look) => look.pass === null)) return { severity: 'unknown', code: 'unknown', values: {} };
    const of = new Set(plan.segments.map((segment) => segment.shot)).size;
    const getName = ({ master }: MasterAnalysis) => (looks.length > 1 ? master.fileName : null);
    const barred = barredShots(plan, looks);
    const [first] = barred;
    if (!first) return { severity: 'pass', code: 'clear', values: {} };
    const whole = barred.find((shot) => shot.whole && shot.look.repairs.live === null);
    if (whole) {
      // Those of this master: each master is mended by itself.
      const shots = barred.filter((found) => found.whole && found.look === whole.look).length;
      const sure = whole.look.pass?.liveConfidence ?? 0;
      return { ...wholeFound(whole), values: { shots, of, sure, file: getName(whole.look) } };
    }
    const own = barred.find((found) => !found.whole);
    if (own) {
      const lacking = barred.filter((found) => !found.whole && found.look === own.look);
      const fix = { fix: 'take-shot-edges', values: shotEdges(own.look, lacking) } as const;
      return {
        severity: 'stop',
        code: 'shots',
        values: { shots: lacking.length, of, file: getName(own.look) },
        frame: own.frame,
        fix,
      };
    }
    return { severity: 'note', code: 'kept', values: { shots: barred.length, of }, frame: first.frame };
  },
});

function wholeFound({ look, frame }: BarValues) {
  const { pass, source, repairs, master } = look;
  const live = pass && listFoundInMaster(pass, source);
  const rates = toRateChange(source, source);
  const values = { master: master.id, repairs: { ...repairs, live }, rates };
  return { severity: 'stop', code: 'whole', frame, fix: { fix: 'take-master-edges', values } } as const;
}

function barredShots(plan: RenderPlan, looks: readonly MasterAnalysis[]): BarValues[] {
  const seen = new Set<string>();
  const shots = new Map(looks.map((look) => [look, new Map(look.shots.map((shot) => [shot.id, shot]))]));
  return plan.segments.flatMap((segment): BarValues[] => {
    const look = looks.find(({ source }) => source.id === plan.sources[segment.source]?.id);
    const shot = look && shots.get(look)?.get(segment.shot);
    if (!look?.pass || !shot || seen.has(segment.shot)) return [];
    seen.add(segment.shot);
    const found = { shot: segment.shot, frame: segment.start, look };
    const own = listFoundInShots(look.pass, look.source, look.master.rate, shot);
    if (own) return isReachingPast(segment.live, own) ? [{ ...found, whole: false }] : [];
    const whole = listFoundInMaster(look.pass, look.source);
    return whole && isReachingPast(segment.live, whole) ? [{ ...found, whole: true }] : [];
  });
}

/** The boundaries of a master with the found edges on the shots that lack them. */
function shotEdges({ pass, source, master, shots }: MasterAnalysis, lacking: readonly BarValues[]) {
  const boundaries = toBoundaries(shots).map((boundary, i) => {
    const shot = shots[i];
    if (!pass || !shot || !lacking.some((found) => found.shot === shot.id)) return boundary;
    return { ...boundary, live: listFoundInShots(pass, source, master.rate, shot) };
  });
  return { master: master.id, old: shots, boundaries, frames: source.frames };
}
