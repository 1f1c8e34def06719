import { toCsv } from './csv';
import type { DispatchedPost } from '../posting/post-order';

/** A post in the history: who posted what where, when, and how it stands. */
export interface HistoryRow {
  outlet: string;
  account: string;
  state: DispatchedPost['state'];
  title: string;
  description: string;
  tags: string;
  audience: string;
  file: string;
  bytes: number;
  sha256: string;
  /** ISO 8601, or nothing. */
  ordered: string;
  scheduled: string;
  up: string;
  address: string;
  reasons: string;
  ssim: string;
}

/** Names that rows of the history show. */
export interface HistoryNames {
  outletName: (outlet: string) => string;
  /** Of an account, by our id of it. */
  accountName: (id: string, post: string) => string;
}

const COLUMNS: readonly (keyof HistoryRow)[] = [
  ...(['outlet', 'account', 'state', 'title', 'description', 'tags', 'audience', 'file', 'bytes'] as const),
  ...(['sha256', 'ordered', 'scheduled', 'up', 'address', 'reasons', 'ssim'] as const),
];

const moment = (milliseconds: number): string => new Date(milliseconds).toISOString();

/** Posts as rows, newest first. */
export function historyRows(
  posts: readonly DispatchedPost[],
  { outletName, accountName }: HistoryNames,
): HistoryRow[] {
  return [...posts]
    .sort((a, b) => b.madeAt - a.madeAt)
    .map(
      ({
        id,
        outlet,
        account,
        state,
        words,
        fileName,
        bytes,
        sha256,
        when,
        madeAt,
        upAt,
        page,
        reasons,
        compared,
      }) => ({
        ...{ outlet: outletName(outlet), account: accountName(account, id), state },
        ...{ title: words.title, description: words.description, tags: words.tags.join(' ') },
        ...{ audience: words.audience, file: fileName, bytes, sha256: sha256 ?? '', ordered: moment(madeAt) },
        scheduled: when === null ? '' : `${when.date}T${when.time} ${when.zone}`,
        ...{ up: upAt === null ? '' : moment(upAt), address: page ?? '', reasons: reasons.join(' ') },
        ssim: compared === null ? '' : compared.ssim.toFixed(4),
      }),
    );
}

/** Rows that have all words of a search somewhere. */
export function matchingRows<Row extends HistoryRow>(rows: readonly Row[], search: string): Row[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  return rows.filter((row) => {
    const text = Object.values(row).join('\n').toLowerCase();
    return words.every((word) => text.includes(word));
  });
}

/** A history as CSV. */
export const historyCsv = (rows: readonly HistoryRow[]): string => toCsv(rows, COLUMNS);
