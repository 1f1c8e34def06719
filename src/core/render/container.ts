/** Containers that exports are made in, the best-known first: each has its maker. */
const EXPORT_CONTAINERS = ['mp4'] as const;
export type ExportContainer = (typeof EXPORT_CONTAINERS)[number];

/** The container of an export for an outlet: the first of ours that it takes, or else our first. */
export const exportContainer = (taken: readonly string[]): ExportContainer =>
  EXPORT_CONTAINERS.find((container) => taken.includes(container)) ?? EXPORT_CONTAINERS[0];
