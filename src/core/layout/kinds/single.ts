import { wholePane } from '../pane';
import { layoutKind } from './layout-kind';

/** Layout of one pane over the whole canvas: each shot fills it, or is fitted into it. */
export const single = layoutKind({
  label: 'Single',
  schema: null,
  plain: {},
  panes: (_settings, size) => [{ ...wholePane(size), mode: 'choice' }],
});
