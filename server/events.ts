import type { EventEmitter } from 'node:events';
import type { Response } from 'express';

/**
 * Answers with server-sent events, for as long as somebody listens.
 * @param pick what of a change is told; null for nothing. @param first what is told at once.
 */
export function tellChanges<T>(
  response: Response,
  news: EventEmitter<{ change: [T] }>,
  pick: (changed: T) => object | null,
  first: readonly T[],
): void {
  response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' });
  const tell = (changed: T) => {
    const told = pick(changed);
    if (told) response.write(`data: ${JSON.stringify(told)}\n\n`);
  };
  news.on('change', tell);
  response.on('close', () => news.off('change', tell));
  for (const known of first) tell(known);
  response.write(': here\n\n');
}
