import { z } from 'zod';
import { boundedNumber } from '../../figures/bounded';
import { clamp } from '../../picture/size';
import { toEven, TRACKS, wholePane } from '../pane';
import { dividerField, MIN_PANE_SHARE } from './dividers';
import { layoutKind } from './layout-kind';

const schema = z.object({
  /** Where the upper pane meets the two under it, 0…1 of the height. */
  divider: boundedNumber(0, 1),
});
type Settings = z.infer<typeof schema>;

const moveDivider = (_settings: Settings, _index: number, to: number): Settings => ({
  divider: clamp(to, MIN_PANE_SHARE, 1 - MIN_PANE_SHARE),
});

/** Layout of one large pane above two that stand side by side. */
export const oneAboveTwo = layoutKind<Settings>({
  label: 'One above two',
  schema,
  plain: { divider: 0.6 },
  panes({ divider }, size) {
    const whole = wholePane(size);
    const { width, height } = size;
    const edge = clamp(toEven(divider * height), 2, height - 2);
    const middle = clamp(toEven(width / 2), 2, width - 2);
    const under = { y: edge, height: height - edge };
    return [
      { ...whole, rect: { ...whole.rect, height: edge } },
      { ...whole, track: TRACKS[1], rect: { ...under, x: 0, width: middle } },
      { ...whole, track: TRACKS[2], rect: { ...under, x: middle, width: width - middle } },
    ];
  },
  dividers: { places: ({ divider }) => [divider], move: moveDivider },
  fields: (settings) => [dividerField(0, settings.divider, (to) => moveDivider(settings, 0, to))],
});
