import { type InputVideoTrack, VideoSampleSink } from 'mediabunny';
import type { EncodeSettings } from '@core/render/encode-settings';
import type { Proof } from '@core/proof/proof-record';
import { type Borders, NO_BORDERS } from '@core/picture/borders';
import {
  blackBorders,
  plannedBorders,
  findSharedBorders,
  subtractPlannedBorders,
  widerBorders,
} from '@core/proof/borders';
import { toRequestedFacts, toFoundFacts, describeFoundSound, createProof } from '@core/proof/proof';
import { type RenderPlan, findSegment } from '@core/render/plan';
import { TroubleError } from '@core/trouble/trouble';
import { openMedia } from '@render/open-media';
import { waitWhilePlaying } from '../play/playing-lock';
import { probeFile, probeSound } from '../read/probe';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import { storedFile } from '../store/storage';

/** A finished export to read back, and what it was made from. */
export interface ReadBackRequest {
  name: string;
  plan: RenderPlan;
  making: EncodeSettings;
}

const REPORT_EVERY = 8;

/** Reads a finished file back: its facts against what was asked, and every decoded frame searched for borders. */
export async function readBack(
  { name, plan, making }: ReadBackRequest,
  context: TaskContext,
): Promise<Proof> {
  const file = await storedFile('exports', name);
  if (!file) throw new TroubleError('master-gone', { file: name });
  if (!making.picture) {
    const sound = describeFoundSound(await probeSound(file));
    return createProof(toRequestedFacts(plan, making), { sound }, 0, NO_BORDERS);
  }
  const found = await probeFile(file);
  const input = openMedia(file);
  try {
    const video = (await input.getPrimaryVideoTrack()) as InputVideoTrack;
    const { borders, searched } = await searchBorders(video, plan, context);
    return createProof(
      toRequestedFacts(plan, making),
      toFoundFacts(found, making.picture.bytes),
      searched,
      borders,
    );
  } finally {
    input.dispose();
  }
}

/** The widest border that any shot keeps over all of its frames, and that its plan does not leave on purpose. */
async function searchBorders(
  video: InputVideoTrack,
  plan: RenderPlan,
  { report, signal }: TaskContext,
): Promise<{ borders: Borders; searched: number }> {
  const perShot = new Map<number, Borders | null>();
  let n = 0;
  let luma = new Uint8Array(0);
  for await (const sample of new VideoSampleSink(video).samples()) {
    try {
      throwIfStopped(signal);
      const size = sample.allocationSize();
      if (luma.length < size) luma = new Uint8Array(size);
      const [layout] = await sample.copyTo(luma);
      const found = blackBorders(
        luma,
        layout?.stride ?? sample.codedWidth,
        sample.codedWidth,
        sample.codedHeight,
      );
      const segment = findSegment(plan, Math.min(n, plan.frames - 1)).start;
      perShot.set(
        segment,
        perShot.has(segment) ? findSharedBorders(perShot.get(segment) ?? null, found) : found,
      );
    } finally {
      sample.close();
    }
    n += 1;
    if (n % REPORT_EVERY > 0) continue;
    const tell = (stage: 'read-back' | 'held') => report({ stage, done: n, total: plan.frames });
    tell('read-back');
    await waitWhilePlaying(signal, () => tell('held'));
  }
  const borders = [...perShot].reduce<Borders>((wide, [start, found]) => {
    const planned = plannedBorders(findSegment(plan, start), plan);
    return widerBorders(wide, subtractPlannedBorders(found ?? NO_BORDERS, planned));
  }, NO_BORDERS);
  return { borders, searched: n };
}
