import { z } from 'zod';
import { boundedNumber } from '../../figures/bounded';
import { wholePane } from '../pane';
import { type Bounds, layoutKind } from './layout-kind';
import { stepField } from './step-field';

const BLUR: Bounds = [0.01, 0.2];
/** How soft the enlarged copy is: the diameter of its blur as a share of the canvas's shorter side. */
const schema = z.object({ blur: boundedNumber(...BLUR) });
type Settings = z.infer<typeof schema>;

/** The whole picture over an enlarged, blurred copy of itself. */
export const backdrop = layoutKind<Settings>({
  label: 'Soft backdrop',
  schema,
  plain: { blur: 0.06 },
  panes(settings, size) {
    const whole = wholePane(size);
    const blur = settings.blur * Math.min(size.width, size.height);
    return [
      { ...whole, blur },
      { ...whole, mode: 'fit' },
    ];
  },
  fields: (settings) => [
    stepField(settings, 'blur', BLUR, (blur) => blur + 0.02, {
      ...{ icon: 'blur', label: 'Softer backdrop', words: 'Softer' },
    }),
    stepField(settings, 'blur', BLUR, (blur) => blur - 0.02, {
      ...{ icon: 'blur-off', label: 'Sharper backdrop', words: 'Sharper' },
    }),
  ],
});
