import { activeCanvas, type Clip } from '@core/job/clip';
import { activeClip, type Job, onCanvas, onClip, findSource, listSources } from '@core/job/job';
import type { ExportRecord } from '@core/job/records';
import { computeCentre } from '@core/framing/window';
import type { Canvas } from '@core/layout/canvas';
import { findPlacement, findTarget } from '@core/outlets/outlets';
import type { Size } from '@core/picture/size';
import { createRenderPlan, type RenderPlan } from '@core/render/plan';
import type { SeenSubject } from '@core/render/overlays';
import { isFaceVisible } from '@core/render/seen-faces';
import { listVisibleSubjects } from '@core/render/seen-subjects';
import { rateValue } from '@core/time/frame-rate';
import { NO_TEXT, type Cover } from '@core/words/clip-text';
import { coverCrop, coverText, type CoverFacts, listProposedCovers } from '@core/words/cover';
import { toMasterFrame, type Timeline } from '@core/words/spans';
import { lookAtGreys, makeCover } from '@media/worker/tasks';
import { loadEvidence } from '../framing';
import { getPass } from '../master';
import { sheetsNow } from '../job';

/** Frames that are looked at for proposals, and how many are proposed. */
const LOOKED_AT = 60;
const PROPOSED = 3;

/** The frame that is a clip's cover: the one that was chosen, or its first. */
export function getCover({ text, cut }: Clip): Cover {
  const [first] = cut;
  return text?.cover ?? { master: first?.master ?? '', frame: first?.in ?? 0 };
}

/** The plan of one frame of a master on a canvas, with the words of the cover. */
function coverPlan(job: Job, canvas: Canvas, { master, frame }: Cover): RenderPlan {
  const clip = activeClip(job.edit);
  return createRenderPlan(
    { ...canvas, rate: findSource(job, master).rate },
    {
      ...job.edit,
      cut: [{ master, in: frame, out: frame + 1 }],
      sources: listSources(job),
      text: coverText(clip.text ?? NO_TEXT),
    },
  );
}

/** The size of a cover for a canvas: its placement's, or the canvas's own. */
export const coverSize = (canvas: Canvas): Size => findTarget(sheetsNow(), canvas).placement.cover ?? canvas;

/** The cover of a job's clip on a canvas as a file. @throws TroubleError */
export async function coverFile(
  job: Job,
  form: 'png' | 'jpg',
  name: string,
  signal?: AbortSignal,
): Promise<File> {
  const clip = activeClip(job.edit);
  const canvas = activeCanvas(clip);
  const { width, height } = coverSize(canvas);
  const type = form === 'png' ? ('image/png' as const) : ('image/jpeg' as const);
  const request = {
    plan: coverPlan(job, canvas, getCover(clip)),
    frame: 0,
    crop: coverCrop(canvas, { width, height }),
    size: { width, height },
    type,
    mostBytes: findTarget(sheetsNow(), canvas).placement.cover?.mostBytes ?? null,
  };
  const still = await makeCover(request, { signal });
  return new File([still], `${name}.${form}`, { type });
}

/** A small picture of a frame as the cover would be. @param rows of it. @throws TroubleError */
export function smallCover(job: Job, cover: Cover, rows: number): Promise<Blob> {
  const canvas = activeCanvas(activeClip(job.edit));
  const asked = coverSize(canvas);
  const size = { width: Math.max(2, Math.round((rows * asked.width) / asked.height)), height: rows };
  return makeCover({
    plan: coverPlan(job, canvas, cover),
    frame: 0,
    crop: coverCrop(canvas, asked),
    size,
    type: 'image/jpeg',
    mostBytes: null,
  });
}

/** The cover to be sent with a post of an export; null where the outlet takes none, or its first frame is meant. */
export async function coverToSend(job: Job, record: ExportRecord, signal: AbortSignal): Promise<Blob | null> {
  const there = job.edit.clips.find((clip) => clip.id === record.clip);
  if (!there?.text || record.placement === null) return null;
  if (!findPlacement(sheetsNow(), record.placement)?.placement.cover) return null;
  const own = there.text.blocks.some((block) => block.on === 'cover');
  if (!there.text.cover && !own) return null;
  const has = there.canvases.some((canvas) => canvas.id === record.canvas);
  const work = has ? onCanvas(onClip(job, record.clip), record.canvas) : onClip(job, record.clip);
  return coverFile(work, 'jpg', 'cover', signal);
}

/** Bytes as text of base 64. */
export async function toBase64(blob: Blob): Promise<string> {
  const bytes = new Uint8Array(await blob.arrayBuffer());
  let text = '';
  for (let at = 0; at < bytes.length; at += 0x8000) {
    text += String.fromCharCode(...bytes.subarray(at, at + 0x8000));
  }
  return btoa(text);
}

/**
 * Frames of a clip that would do as its cover: sharp, bright, far from cuts, with a face or who is followed in view.
 * @param plan of the canvas. @returns the best first; none before the pass is through.
 */
export async function proposeCovers(job: Job, plan: RenderPlan, timeline: Timeline): Promise<Cover[]> {
  const frames = timeline.starts[timeline.cut.length] ?? 0;
  const count = Math.min(LOOKED_AT, frames);
  const outputs = Array.from({ length: count }, (_, i) => Math.floor(((i + 0.5) * frames) / count));
  const subjects = listVisibleSubjects(plan);
  const facts: CoverFacts[] = [];
  for (const master of job.masters) {
    const grey = getPass(master.fingerprint)?.grey;
    if (!grey) continue;
    const own = outputs.flatMap((output) => {
      const place = toMasterFrame(output, timeline);
      return place?.master === master.id && place.frame < grey.frames ? [{ output, frame: place.frame }] : [];
    });
    const { width, height } = grey;
    const { fingerprint } = master;
    const { spans } = await loadEvidence(master);
    const tracks = spans.flatMap((span) => span.tracks);
    const looks = await lookAtGreys({ fingerprint, width, height, frames: own.map(({ frame }) => frame) });
    looks.forEach((look, i) => {
      const { output } = own[i] as (typeof own)[number];
      facts.push({
        ...look,
        frame: output,
        fromCut: fromCut(plan, output),
        subject:
          subjects.some((subject) => isInView(subject, output, plan)) || isFaceVisible(plan, output, tracks),
      });
    });
  }
  return listProposedCovers(facts, PROPOSED, rateValue(timeline.rate)).flatMap(
    (output) => toMasterFrame(output, timeline) ?? [],
  );
}

/** Tells whether the middle of what is followed lies on the canvas at an output frame. */
function isInView({ from, to, rect }: SeenSubject, frame: number, { width, height }: Size): boolean {
  const { x, y } = computeCentre(rect);
  return frame >= from && frame < to && x >= 0 && y >= 0 && x < width && y < height;
}

/** Frames from an output frame to the nearest change of the picture. */
const fromCut = ({ segments }: RenderPlan, frame: number): number =>
  Math.min(
    ...segments.map(({ start, frames }) =>
      Math.min(Math.abs(frame - start), Math.abs(start + frames - frame)),
    ),
  );
