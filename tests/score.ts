import type { Boundary } from '../src/core/cut/shots';
import type { Film } from './film-maker';

/** How found boundaries stand against what is true. */
export interface Score {
  hits: number;
  missed: number;
  wrong: number;
  f1: number;
}

const f1 = (hits: number, missed: number, wrong: number): number =>
  hits === 0 ? 0 : (2 * hits) / (2 * hits + missed + wrong);

/** Hard cuts: right to the frame. */
export function scoreCuts(film: Film, found: readonly Boundary[]): Score {
  const cuts = found.filter((boundary) => boundary.start?.kind === 'cut').map((boundary) => boundary.frame);
  const hits = cuts.filter((frame) => film.cuts.includes(frame)).length;
  const [missed, wrong] = [film.cuts.length - hits, cuts.length - hits];
  return { hits, missed, wrong, f1: f1(hits, missed, wrong) };
}

/** Dissolves: found where one is, with its middle inside it. */
export function scoreDissolves(film: Film, found: readonly Boundary[]): Score {
  const all = found
    .filter((boundary) => boundary.start?.kind === 'dissolve')
    .map((boundary) => boundary.frame);
  const within = (frame: number, dissolve: { from: number; to: number }) =>
    frame >= dissolve.from - 1 && frame <= dissolve.to + 1;
  const hits = film.dissolves.filter((dissolve) => all.some((frame) => within(frame, dissolve))).length;
  const wrong = all.filter((frame) => !film.dissolves.some((dissolve) => within(frame, dissolve))).length;
  const missed = film.dissolves.length - hits;
  return { hits, missed, wrong, f1: f1(hits, missed, wrong) };
}

/** Counts what a truth was taken for: rows are what is there, columns what was found. */
export function confusion(
  films: readonly { film: Film; found: readonly Boundary[] }[],
): Record<string, Record<string, number>> {
  const table: Record<string, Record<string, number>> = {};
  const add = (truth: string, taken: string) => {
    const row = (table[truth] ??= {});
    row[taken] = (row[taken] ?? 0) + 1;
  };
  for (const { film, found } of films) {
    const left = new Set(found);
    const take = (truth: string, from: number, to: number) => {
      const boundary = found.find((it) => left.has(it) && it.frame >= from && it.frame <= to);
      if (boundary) left.delete(boundary);
      add(truth, boundary?.start?.kind ?? 'nothing');
    };
    for (const frame of film.cuts) take('cut', frame, frame);
    for (const { from, to } of film.dissolves) take('dissolve', from - 1, to + 1);
    for (const { from, to } of film.fades) take('fade', from - 1, to + 1);
    for (const { kind, from, to } of film.traps) take(kind, from, to + 1);
    for (const boundary of left) add('nothing', boundary.start?.kind ?? 'nothing');
  }
  return table;
}
