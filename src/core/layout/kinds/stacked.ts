import { z } from 'zod';
import { boundedNumber } from '../../figures/bounded';
import { clamp } from '../../picture/size';
import { toEven, TRACKS, wholePane } from '../pane';
import { dividerField, MIN_PANE_SHARE } from './dividers';
import { type LayoutField, layoutKind } from './layout-kind';

const place = boundedNumber(0, 1);
const schema = z.object({
  panes: z.union([z.literal(2), z.literal(3)]),
  /** Where the panes meet, 0…1 of the height; the second is used by three panes only. */
  dividers: z.tuple([place, place]),
});
type Settings = z.infer<typeof schema>;

/** Panes of even height. */
const EVEN: Record<Settings['panes'], Settings> = {
  2: { panes: 2, dividers: [0.5, 0.75] },
  3: { panes: 3, dividers: [1 / 3, 2 / 3] },
};

/** Finds top and bottom of each pane, in even pixels that meet without a gap; none is thinner than two rows. */
function findRows({ panes, dividers }: Settings, height: number): [number, number][] {
  const edges = [0, ...dividers.slice(0, panes - 1).sort((a, b) => a - b), 1].map((divider) =>
    toEven(divider * height),
  );
  for (let i = 1; i < panes; i++) edges[i] = Math.max(edges[i] as number, (edges[i - 1] as number) + 2);
  for (let i = panes - 1; i > 0; i--) edges[i] = Math.min(edges[i] as number, (edges[i + 1] as number) - 2);
  return edges.slice(0, -1).map((top, i) => [top, edges[i + 1] as number]);
}

const findDividers = ({ panes, dividers }: Settings): number[] => dividers.slice(0, panes - 1);

/** Moves a divider, which keeps its distance from the next one and from the edges. */
function moveDivider(settings: Settings, index: number, to: number): Settings {
  const [first, second] = settings.dividers;
  if (index > 0)
    return { ...settings, dividers: [first, clamp(to, first + MIN_PANE_SHARE, 1 - MIN_PANE_SHARE)] };
  const most = settings.panes === 3 ? second : 1;
  return { ...settings, dividers: [clamp(to, MIN_PANE_SHARE, most - MIN_PANE_SHARE), second] };
}

/** Two or three panes one above the other. */
export const stacked = layoutKind<Settings>({
  label: 'Stacked',
  schema,
  plain: EVEN[2],
  panes: (settings, size) =>
    findRows(settings, size.height).map(([top, bottom], i) => {
      const whole = wholePane(size);
      return {
        ...whole,
        track: TRACKS[i] as string,
        rect: { ...whole.rect, y: top, height: bottom - top },
      };
    }),
  dividers: { places: findDividers, move: moveDivider },
  fields: (settings) => [
    {
      type: 'choice',
      label: 'Stacked panes',
      value: String(settings.panes),
      options: [
        { value: '2', label: 'Two panes', settings: EVEN[2] },
        { value: '3', label: 'Three panes', settings: EVEN[3] },
      ],
    },
    ...findDividers(settings).map((at, i): LayoutField<Settings> =>
      dividerField(i, at, (to) => moveDivider(settings, i, to)),
    ),
  ],
});
