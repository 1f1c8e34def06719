import { ssim } from '@core/picture/likeness';
import { type Alignment, alignFilms, sentFrame } from '@core/proof/alignment';
import type { FilmFacts, ReturnedFile } from '@core/proof/returned';
import { computeCorrelation, isAudible } from '@core/proof/sound-likeness';
import { TroubleError } from '@core/trouble/trouble';
import { storedFile } from '../store/storage';
import { readLuma, encodePng, turnBack } from '../trial/luma';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import { LEVELS, OpenFilm, type Thumbs } from './look';

/** A file that came back, and the export that it should be. */
export interface ReturnedRequest {
  /** The stored export, and what a person calls it. */
  name: string;
  fileName: string;
  file: File;
}

/** Result of the comparison, with the least similar frame as it was sent and as it came back. */
export interface ReturnedResult {
  returned: ReturnedFile;
  pictures: { sent: Blob; got: Blob } | null;
}

/** Frames whose pictures are held against each other at full size. */
const LOOKED_AT = 16;

/** Holds a file that came back against the export that left: by its hash, its facts, its pictures and its sound. */
export async function lookAtReturned(
  { name, fileName, file }: ReturnedRequest,
  { report, signal }: TaskContext,
): Promise<ReturnedResult> {
  const stored = await storedFile('exports', name);
  if (!stored) throw new TroubleError('export-gone', { file: fileName });
  const films: OpenFilm[] = [];
  const reportShare =
    (stage: string, total: number, before = 0) =>
    (done: number) =>
      report({ stage, done: before + done, total });
  try {
    const bytes = stored.size + file.size;
    const sent = await OpenFilm.open(new File([stored], fileName), reportShare('hash', bytes), signal);
    films.push(sent);
    const got = await OpenFilm.open(file, reportShare('hash', bytes, stored.size), signal);
    films.push(got);
    const facts = { sent: sent.facts, got: got.facts };
    const samePicture = facts.sent.pictureHash === facts.got.pictureHash;
    const frames = facts.sent.frames + facts.got.frames;
    // Both at once: each has a decoder of its own.
    const seen = { sent: 0, got: 0 };
    const thumbs = (film: OpenFilm, whose: keyof typeof seen) =>
      film.thumbs((done) => {
        seen[whose] = done;
        report({ stage: 'look', done: seen.sent + seen.got, total: frames });
      }, signal);
    const looked = samePicture ? null : await Promise.all([thumbs(sent, 'sent'), thumbs(got, 'got')]);
    const lie = looked && findLie(facts.sent.rate, ...looked);
    const pictures = lie && (await comparePictures(sent, got, lie, { report, signal }));
    const [left, came] = [await sent.levels(signal), await got.levels(signal)];
    const starts = lie ? sentFrame(lie.alignment.runs, 0, lie.places) / facts.sent.rate : 0;
    return {
      returned: {
        ...facts,
        alignment: lie?.alignment ?? null,
        ssim: pictures?.ssim ?? null,
        heard: left && came && computeCorrelation(left, came, Math.round(starts * LEVELS)),
        audible: { sent: audible(facts.sent, left), got: audible(facts.got, came) },
      },
      pictures: pictures?.worst ?? null,
    };
  } finally {
    for (const film of films) film.close();
  }
}

/** How one film lies on the other, and where each of its frames would by its time. */
interface Placing {
  alignment: Alignment;
  places: readonly number[];
  times: readonly number[];
}

function findLie(rate: number, sent: Thumbs, got: Thumbs): Placing {
  // As many frames as were sent are those, however fast they are played.
  const isWhole = got.times.length === sent.times.length;
  const places = got.times.map((time, n) => (isWhole ? n : time * rate));
  return { alignment: alignFilms(sent.thumbs, got.thumbs, places), places, times: got.times };
}

/** Tells whether a sound is audible; null for one that is there and cannot be decoded. */
const audible = ({ sound }: FilmFacts, levels: Float32Array | null): boolean | null =>
  sound && !levels ? null : isAudible(levels);

/** Likeness of frames all along the film, at the size that was sent, and the least alike of them as pictures. */
async function comparePictures(
  sent: OpenFilm,
  got: OpenFilm,
  { alignment, places, times }: Placing,
  { report, signal }: TaskContext,
): Promise<{ ssim: ReturnedFile['ssim']; worst: ReturnedResult['pictures'] }> {
  const most = Math.min(LOOKED_AT, times.length);
  const pairs = Array.from({ length: most }, (_, n) => {
    const back = Math.floor(((n + 0.5) * times.length) / most);
    return { back: times[back] as number, left: sentFrame(alignment.runs, back, places) };
  }).filter(({ left }) => left >= 0 && left < sent.facts.frames);
  const lefts = sent.frames(pairs.map(({ left }) => left / sent.facts.rate));
  const backs = got.frames(pairs.map(({ back }) => back));
  let [sum, count, least] = [0, 0, 2];
  let worst: { number: number; was: VideoFrame; back: VideoFrame } | null = null;
  for (const { left } of pairs) {
    report({ stage: 'compare', done: count, total: pairs.length });
    throwIfStopped(signal);
    const [was, came] = [(await lefts.next()).value ?? null, (await backs.next()).value ?? null];
    const back = came && turnBack(came, alignment.turn, sent.facts);
    came?.close();
    if (!was || !back) {
      was?.close();
      back?.close();
      continue;
    }
    const likeness = ssim(await readLuma(was), await readLuma(back));
    sum += likeness;
    count += 1;
    const other = likeness < least ? worst : { was, back };
    if (likeness < least) {
      least = likeness;
      worst = { number: left, was, back };
    }
    other?.was.close();
    other?.back.close();
  }
  if (!worst) return { ssim: null, worst: null };
  const pictures = { sent: await encodePng(worst.was), got: await encodePng(worst.back) };
  worst.was.close();
  worst.back.close();
  return {
    ssim: { mean: sum / count, worst: least, frame: worst.number, frames: count },
    worst: pictures,
  };
}
