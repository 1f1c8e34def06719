import { z } from 'zod';
import { wholePane } from '../pane';
import { layoutKind } from './layout-kind';

/** Settings: the direction in which the picture is turned. */
const schema = z.object({ clockwise: z.boolean() });
type Settings = z.infer<typeof schema>;

/** The picture on its side: the phone is turned to see it. */
export const turned = layoutKind<Settings>({
  label: 'Turned',
  schema,
  plain: { clockwise: true },
  // A window that turns one way shows the picture turned the other.
  panes: ({ clockwise }, size) => [{ ...wholePane(size), turn: clockwise ? 270 : 90 }],
  fields: ({ clockwise }) => [
    {
      type: 'choice',
      label: 'Turned',
      value: clockwise ? 'right' : 'left',
      options: [
        { value: 'right', label: 'To the right', settings: { clockwise: true } },
        { value: 'left', label: 'To the left', settings: { clockwise: false } },
      ],
    },
  ],
});
