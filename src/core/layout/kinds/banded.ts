import { z } from 'zod';
import { boundedNumber } from '../../figures/bounded';
import { colourSchema } from '../../words/text-style';
import { wholePane } from '../pane';
import { type Bounds, layoutKind } from './layout-kind';
import { stepField } from './step-field';

/** Colours of bands to begin with, as sRGB: paper, ink, woad. */
export const BAND_COLOURS = ['#FAF6EC', '#1F2B33', '#2B5C8A'] as const;

const PLACE: Bounds = [0, 1];
const schema = z.object({
  /** Where the picture lies between the bands: 0 at the top, 1 at the bottom. */
  place: boundedNumber(...PLACE),
  colour: colourSchema,
});
type Settings = z.infer<typeof schema>;

/** The whole picture between bands of one colour, which words may lie on. */
export const banded = layoutKind<Settings>({
  label: 'Banded',
  schema,
  plain: { place: 0.5, colour: BAND_COLOURS[0] },
  panes: ({ place }, size) => [{ ...wholePane(size), mode: 'fit', place }],
  ground: ({ colour }) => colour,
  fields: (settings) => [
    stepField(settings, 'place', PLACE, (place) => place - 0.05, {
      ...{ icon: 'arrow-up', label: 'Picture up', words: 'Up', joins: 'band' },
    }),
    stepField(settings, 'place', PLACE, (place) => place + 0.05, {
      ...{ icon: 'arrow-down', label: 'Picture down', words: 'Down', joins: 'band' },
    }),
    ...BAND_COLOURS.map((colour, i) => ({
      ...{ type: 'colour' as const, label: `Band colour ${i + 1}`, colour },
      isChosen: settings.colour === colour,
      settings: { ...settings, colour },
    })),
  ],
});
