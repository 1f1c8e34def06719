import { create } from 'zustand';
import {
  type Evidence,
  evidenceSchema,
  type LookedSpan,
  createEvidence,
  type Track,
  unseenParts,
  withDrawn,
  withSpan,
} from '@core/follow/evidence';
import type { Master } from '@core/master/master';
import { toSource } from '@core/master/source';
import { passNames } from '@core/pass/pass';
import { storedFile, writeSmall } from '@media/store/storage';
import { gatherEvidence } from '@media/worker/tasks';
import { runAlone } from '../store';

/** Evidence for following, by fingerprint. */
export const useEvidence = create<Record<string, Evidence>>(() => ({}));

/** Loads the evidence of a master from this visit or an earlier one. */
export async function loadEvidence({ fingerprint }: Pick<Master, 'fingerprint'>): Promise<Evidence> {
  const known = useEvidence.getState()[fingerprint];
  if (known) return known;
  const stored = (await readStored(fingerprint)) ?? createEvidence(fingerprint);
  // Something may have been found meanwhile.
  const now = useEvidence.getState()[fingerprint] ?? stored;
  useEvidence.setState({ [fingerprint]: now });
  return now;
}

/** Reads stored evidence; null for what cannot be read, which is gathered again. */
async function readStored(fingerprint: string): Promise<Evidence | null> {
  const file = await storedFile('passes', passNames(fingerprint).evidence);
  if (!file) return null;
  try {
    return evidenceSchema.parse(JSON.parse(await file.text()));
  } catch {
    return null;
  }
}

/** Adds to what is known of a master, in this tab and stored; what another tab stored meanwhile stays. */
const add = (fingerprint: string, change: (evidence: Evidence) => Evidence): Promise<void> =>
  runAlone(`gusset/evidence/${fingerprint}`, async () => {
    const stored = await readStored(fingerprint);
    const next = change(stored ?? useEvidence.getState()[fingerprint] ?? createEvidence(fingerprint));
    await writeSmall('passes', passNames(fingerprint).evidence, new Blob([JSON.stringify(next)]));
    useEvidence.setState({ [fingerprint]: next });
  });

/** With a span, unless another tab looked there meanwhile. */
const withFresh = (evidence: Evidence, span: LookedSpan): Evidence =>
  evidence.spans.some((known) => known.in < span.out && known.out > span.in)
    ? evidence
    : withSpan(evidence, span);

/** Keeps what was followed from a box that a person drew in a shot. @param range of that, at the master's own rate. */
export const keepDrawn = (
  { fingerprint }: Pick<Master, 'fingerprint'>,
  track: Track,
  range: { in: number; out: number },
): Promise<void> => add(fingerprint, (evidence) => withDrawn(evidence, track, range));

/** Forgets what is known of a master that is deleted. */
export const forgetEvidence = (fingerprint: string): void =>
  useEvidence.setState((all) => {
    const { [fingerprint]: _gone, ...rest } = all;
    return rest;
  }, true);

/** Workers that look side by side. */
const LANES = 2;

/**
 * Looks at what was not looked at yet of some ranges of a master, each of one shot. What was found is kept also when the
 * rest is stopped.
 *
 * @param ranges at the master's own rate. @param onFrames told how many frames were looked at, and of how many.
 * @throws TroubleError of a worker, or `cancelled`.
 */
export async function gatherShotEvidence(
  master: Master,
  ranges: readonly { in: number; out: number }[],
  onFrames: (done: number, total: number) => void,
  signal: AbortSignal,
): Promise<Evidence> {
  // What another tab found counts too.
  const { spans } = (await readStored(master.fingerprint)) ?? (await loadEvidence(master));
  const parts = ranges.flatMap((range) => unseenParts(spans, range));
  const total = parts.reduce((sum, part) => sum + part.out - part.in, 0);
  const lanes = shareRange(parts, LANES);
  const done = lanes.map(() => 0);
  // One after another, as they come.
  let keeping = Promise.resolve();
  const own = new AbortController();
  const stop = () => own.abort();
  signal.addEventListener('abort', stop);
  if (signal.aborted) own.abort();
  try {
    await Promise.all(
      lanes.map((ranges, lane) =>
        gatherEvidence(
          { source: toSource(master), ranges },
          {
            onProgress(progress) {
              done[lane] = progress.done;
              onFrames(
                done.reduce((sum, frames) => sum + frames, 0),
                total,
              );
              const { span } = progress;
              if (!span) return;
              keeping = keeping.then(() => add(master.fingerprint, (evidence) => withFresh(evidence, span)));
            },
            signal: own.signal,
          },
        ),
      ),
    );
  } finally {
    // Where one lane failed the other has nothing to look for any more.
    own.abort();
    signal.removeEventListener('abort', stop);
    await keeping;
  }
  const found = (await readStored(master.fingerprint)) ?? (await loadEvidence(master));
  useEvidence.setState({ [master.fingerprint]: found });
  return found;
}

/** Ranges shared out so that each lane has about as much to look at. */
function shareRange<Range extends { in: number; out: number }>(
  ranges: readonly Range[],
  lanes: number,
): Range[][] {
  const made = Array.from({ length: lanes }, (): Range[] => []);
  const load = made.map(() => 0);
  for (const range of [...ranges].sort((a, b) => b.out - b.in - (a.out - a.in))) {
    const lane = load.indexOf(Math.min(...load));
    made[lane]?.push(range);
    load[lane] = (load[lane] ?? 0) + range.out - range.in;
  }
  return made.filter((ranges) => ranges.length > 0);
}
