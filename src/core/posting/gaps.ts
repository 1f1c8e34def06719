/** A post of an account at a moment, in milliseconds: one that is up, or that waits. */
export interface PlannedPost {
  id: string;
  account: string;
  moment: number;
}

/** Gaps between posts of one account that a person may keep to, in hours. */
export const GAPS = ['0', '1', '2', '4', '8', '24'] as const;
export type Gap = (typeof GAPS)[number];
/** So that one clip does not take the other's viewers; common practice, no source. */
export const PLAIN_GAP: Gap = '4';
const HOUR = 3_600_000;

/** The post of the same account that is nearest to a moment, where it is nearer than a gap. */
export function isTooNear(
  { id, account, moment }: PlannedPost,
  all: readonly PlannedPost[],
  gap: Gap,
): PlannedPost | null {
  const distance = (other: PlannedPost) => Math.abs(other.moment - moment);
  const near = all.filter(
    (other) => other.id !== id && other.account === account && distance(other) < Number(gap) * HOUR,
  );
  return near.toSorted((a, b) => distance(a) - distance(b))[0] ?? null;
}

/** The first moment from one on that keeps a gap to all posts of its account. */
export function findNextFreeTime(planned: PlannedPost, all: readonly PlannedPost[], gap: Gap): number {
  const later = all
    .filter(({ id, account }) => id !== planned.id && account === planned.account)
    .toSorted((a, b) => a.moment - b.moment);
  let { moment } = planned;
  for (const other of later) {
    if (isTooNear({ ...planned, moment }, [other], gap)) moment = other.moment + Number(gap) * HOUR;
  }
  return moment;
}
