import { z } from 'zod';
import { listOptions } from './field';
import { joinAlternatives, declareLimit } from './limit';

/** Containers by their short names. */
export const CONTAINERS = ['mp4', 'mov', 'webm'] as const;

/** Judges a container by its short name, such as `mp4`. */
export const judgeContainer = (
  container: string,
  { containers }: { containers: readonly string[] },
): 'other' | null => (containers.includes(container) ? null : 'other');

/** Limit on the container of a file. */
export const containerLimit = declareLimit({
  name: 'container',
  shape: { containers: z.array(z.enum(CONTAINERS)).min(1) },
  plain: { containers: ['mp4'] },
  section: 'File and picture',
  fields: [
    {
      path: 'containers',
      label: 'Containers',
      as: { kind: 'some', options: listOptions(CONTAINERS, (name) => name.toUpperCase()) },
    },
  ],
  refuseFile: ({ container }, placement) =>
    judgeContainer(container, placement) &&
    `The file is ${container.toUpperCase()}; ${placement.name} takes ${joinAlternatives(placement.containers).toUpperCase()}.`,
});
