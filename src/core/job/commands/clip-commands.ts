import { z } from 'zod';
import { audienceSchema } from '../../outlets/audience';
import { withAudience } from '../audience';
import { clipSchema, toGoneClip, overrideSchema, wordsSchema } from '../clip';
import { withVariant } from '../post-words';
import { listActs, command, withClip } from './command';

const ACTS = {
  add: 'add a clip',
  remove: 'remove a clip',
  rename: 'rename a clip',
  parts: 'split into parts',
};

/** The clips of a job, and what goes out with the one being worked on. */
export const CLIP_COMMANDS = {
  'set-clips': command({
    schema: z.object({ act: z.enum(listActs(ACTS)), clips: z.array(clipSchema).min(1), clip: z.string() }),
    label: ACTS,
    apply(edit, { clips, clip }) {
      const stays = new Set(clips.map((clip) => clip.id));
      const removed = edit.clips.filter((clip) => !stays.has(clip.id)).map(toGoneClip);
      const gone = [...edit.gone.filter((clip) => !stays.has(clip.id)), ...removed];
      return { ...edit, clips, clip, gone };
    },
  }),
  'set-words': command({
    schema: z.object({ words: wordsSchema }),
    label: 'change the words',
    apply: (edit, { words }) => withClip(edit, (clip) => ({ ...clip, words })),
  }),
  /** Some of the words, of one outlet's own where it has these; the others stay as they are by then. */
  'mend-words': command({
    schema: z.object({ words: wordsSchema.partial(), outlet: z.string().optional() }),
    label: 'mend the words',
    apply: (edit, { words, outlet = '' }) =>
      withClip(edit, (clip) => {
        const own = clip.words.variants?.[outlet];
        const isOwn = own !== undefined && Object.keys(words).some((name) => name in own);
        const mended = isOwn ? withVariant(clip.words, outlet, words) : { ...clip.words, ...words };
        return { ...clip, words: wordsSchema.parse(mended) };
      }),
  }),
  'set-audience': command({
    /** For one placement, by its key, or for all that have none of their own. */
    schema: z.object({ audience: audienceSchema, placement: z.string().optional() }),
    label: 'choose who may see it',
    apply: (edit, { audience, placement }) =>
      withClip(edit, (clip) => withAudience(clip, audience, placement)),
  }),
  'set-override': command({
    /** Without a reason the override ends. */
    schema: overrideSchema.omit({ reason: true }).extend({ reason: overrideSchema.shape.reason.nullable() }),
    label: 'override a stop',
    apply: (edit, { rule, canvas, reason }) =>
      withClip(edit, (clip) => {
        const others = clip.overrides.filter(
          (override) => override.rule !== rule || override.canvas !== canvas,
        );
        return { ...clip, overrides: reason === null ? others : [...others, { rule, canvas, reason }] };
      }),
  }),
};
