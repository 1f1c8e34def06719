import { MATRIX_NAMES, type Problem } from './diagnosis';
import type { ProblemCode, ProblemValues } from './problem-values';

/** Name of a problem, and what it means for the clips. */
interface Words {
  title: string;
  meaning: string;
}

const matrixName = (matrix: string): string => MATRIX_NAMES[matrix] ?? matrix;

const WORDS: { [Code in ProblemCode]: (values: ProblemValues[Code], repaired: boolean) => Words } = {
  'pixel-aspect': (v, repaired) => ({
    title: v.aspect === '1:1' ? 'Pixels may not be square' : `Pixels are ${v.aspect}`,
    meaning:
      v.aspect === '1:1' && !repaired
        ? `${v.stored} is a size that tapes and captures have. If things look too wide or too tall, say what it is.`
        : `The stored ${v.stored} is shown as ${v.width}×${v.height}.`,
  }),
  rotation: (v, repaired) => ({
    title: v.degrees === 0 ? 'The picture is not turned' : `The picture is turned by ${v.degrees}°`,
    meaning: repaired
      ? `You set it. The file itself says ${v.flagged}°.`
      : 'The file says so. If heads point sideways, turn it here.',
  }),
  flip: () => ({ title: 'The picture is mirrored', meaning: 'Words in it read backwards if that is wrong.' }),
  bars: (v, repaired) => ({
    title: repaired
      ? `Live area: ${v.live}`
      : `Bars are part of the picture: ${v.live} of ${v.whole} is live`,
    meaning: repaired
      ? 'Windows stay inside it, so no bar gets into a clip. Edges that were found for sure are taken by themselves.'
      : `Found over the whole file (${v.sure} % sure). Without the repair the bars show in every clip, and the export is kept back.`,
  }),
  'shot-bars': (v) => ({
    title: `${v.count} ${v.count === 1 ? 'shot has' : 'shots have'} bars of their own`,
    meaning: 'Their windows stay inside their own live areas.',
  }),
  range: (v) => ({
    title: v.range === null ? 'Levels: the file does not say' : `Levels: ${v.range} range`,
    meaning:
      'Clips are made in limited range. If they look washed out or too hard, the file says it wrongly.',
  }),
  matrix: (v) => ({
    title:
      v.matrix === null ? 'Colour matrix: the file does not say' : `Colour matrix: ${matrixName(v.matrix)}`,
    meaning:
      v.matrix === null
        ? `A picture of this size is mostly ${matrixName(v.likely)}.`
        : 'Clips are made in BT.709; it is converted. If greens and reds look wrong, the file says it wrongly.',
  }),
  'varying-rate': (v) => ({
    title: `The frame rate varies: ${v.least} to ${v.greatest} fps`,
    meaning:
      `On average ${v.mean} fps. It is mapped to an even ${Number(v.rate)} fps: ` +
      `${v.repeated} frames repeat and ${v.dropped} are dropped.`,
  }),
  interlace: (v, repaired) => ({
    title: repaired ? 'Interlaced, and deinterlaced here' : `Interlaced: ${v.share} % of moving frames comb`,
    meaning: repaired
      ? 'Lines of the second field are drawn anew where they comb; still parts keep their full height.'
      : `${v.order === null ? 'Which field comes first is not clear' : `The ${v.order} field comes first`}. ` +
        'Moving edges look jagged, and the outlet’s compression makes that worse.',
  }),
  upright: (v) => ({
    title: v.shape === 'tall' ? 'Already tall' : 'Already square',
    meaning: 'Already this shape: little or nothing is cropped.',
  }),
  small: (v) => ({
    title: `Too small for ${v.canvas}: enlarged to ${v.percent} %`,
    meaning: `${v.size} is there; ${v.width}×${v.height} or more would look clean. Bring in a larger export if there is one.`,
  }),
  loud: (v) => ({
    title: `The sound peaks at ${v.peak} dBTP`,
    meaning: `Above ${v.limit} dBTP the outlets' own encoders may clip it (EBU R 128).`,
  }),
};

/** A problem in words. Code and values belong together in it; the table knows each pair. */
export function problemWords({ code, values, repaired }: Problem): Words {
  return (WORDS[code] as (values: Problem['values'], repaired: boolean) => Words)(values, repaired);
}
