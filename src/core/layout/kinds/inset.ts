import { z } from 'zod';
import { boundedNumber } from '../../figures/bounded';
import type { Size } from '../../picture/size';
import { type Pane, toEven, TRACKS, wholePane } from '../pane';
import { type Bounds, layoutKind } from './layout-kind';
import { stepField } from './step-field';

const CORNERS = ['top-left', 'top-right', 'bottom-left', 'bottom-right'] as const;
const WIDTH: Bounds = [0.15, 0.9];
const MARGIN: Bounds = [0, 0.2];
const ASPECT: Bounds = [0.4, 2.5];
const RADIUS: Bounds = [0, 0.5];

const schema = z.object({
  corner: z.enum(CORNERS),
  /** Width of the pane over the other, and its distance from the edges: shares of the canvas's shorter side. */
  width: boundedNumber(...WIDTH),
  margin: boundedNumber(...MARGIN),
  /** Width over height. */
  aspect: boundedNumber(...ASPECT),
  /** Of its corners, a share of its shorter side: 0.5 makes them half circles. */
  radius: boundedNumber(...RADIUS),
});
type Settings = z.infer<typeof schema>;

/** Finds where the small pane lies, and how round its corners are. */
function findInsetPane(settings: Settings, size: Size): Pick<Pane, 'rect' | 'radius'> {
  const shorter = Math.min(size.width, size.height);
  const margin = toEven(settings.margin * shorter);
  const room = (side: number) => Math.max(2, side - 2 * margin);
  const width = Math.max(2, toEven(Math.min(room(size.width), settings.width * shorter)));
  const height = Math.max(2, toEven(Math.min(room(size.height), width / settings.aspect)));
  const [vertical, horizontal] = settings.corner.split('-');
  return {
    rect: {
      x: horizontal === 'left' ? margin : size.width - margin - width,
      y: vertical === 'top' ? margin : size.height - margin - height,
      width,
      height,
    },
    radius: settings.radius * Math.min(width, height),
  };
}

const plus = (by: number) => (value: number) => value + by;
const times = (by: number) => (value: number) => value * by;

/** A small pane over another, in a corner. */
export const inset = layoutKind<Settings>({
  label: 'Inset',
  schema,
  plain: { corner: 'bottom-right', width: 0.42, margin: 0.04, aspect: 1, radius: 0.12 },
  panes(settings, size) {
    const whole = wholePane(size);
    return [whole, { ...whole, track: TRACKS[1], ...findInsetPane(settings, size) }];
  },
  fields(settings) {
    const step = stepField<Settings, 'width' | 'margin' | 'aspect' | 'radius'>;
    const corner = CORNERS[(CORNERS.indexOf(settings.corner) + 1) % CORNERS.length] ?? CORNERS[0];
    return [
      {
        type: 'step',
        icon: 'arrow-top-left-bottom-right',
        label: 'Next corner',
        words: 'Corner',
        settings: { ...settings, corner },
      },
      step(settings, 'width', WIDTH, plus(0.05), { icon: 'plus', label: 'Larger inset', words: 'Larger' }),
      step(settings, 'width', WIDTH, plus(-0.05), {
        ...{ icon: 'minus', label: 'Smaller inset', words: 'Smaller' },
      }),
      step(settings, 'radius', RADIUS, plus(0.1), {
        ...{ icon: 'rounded-corner', label: 'Rounder corners', words: 'Rounder' },
      }),
      step(settings, 'radius', RADIUS, plus(-0.1), {
        ...{ icon: 'square-outline', label: 'Squarer corners', words: 'Squarer' },
      }),
      step(settings, 'margin', MARGIN, plus(-0.02), {
        ...{ icon: 'arrow-collapse-all', label: 'Nearer to the edge', words: 'Nearer' },
      }),
      step(settings, 'margin', MARGIN, plus(0.02), {
        ...{ icon: 'arrow-expand-all', label: 'Further from the edge', words: 'Further' },
      }),
      step(settings, 'aspect', ASPECT, times(1.125), {
        ...{ icon: 'crop-landscape', label: 'Wider inset', words: 'Wider' },
      }),
      step(settings, 'aspect', ASPECT, times(1 / 1.125), {
        ...{ icon: 'crop-portrait', label: 'Taller inset', words: 'Taller' },
      }),
    ];
  },
});
