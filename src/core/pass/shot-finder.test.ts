import { type Between, type Film, makeFilm } from '../../../tests/film-maker';
import { random } from '../../../tests/random';
import { scoreCuts, scoreDissolves } from '../../../tests/score';
import type { Boundary } from '../cut/shots';
import { ShotFinder } from './shot-finder';

function foundIn(film: Film): Boundary[] {
  const finder = new ShotFinder();
  for (const frame of film.frames) finder.push(frame);
  return finder.finish();
}

/** Films with truth: cuts, dissolves and fades in a mixed order. */
function films(count: number, traps: number): Film[] {
  return Array.from({ length: count }, (_, i) => {
    const next = random(1000 + i);
    const betweens = Array.from({ length: 10 }, (): Between => {
      const value = next();
      return value < 0.55 ? 'cut' : value < 0.85 ? 'dissolve' : 'fade';
    });
    return makeFilm(500 + i, betweens, traps);
  });
}

function total(scores: { hits: number; missed: number; wrong: number }[]): number {
  const sum = (key: 'hits' | 'missed' | 'wrong') => scores.reduce((all, score) => all + score[key], 0);
  return (2 * sum('hits')) / (2 * sum('hits') + sum('missed') + sum('wrong'));
}

describe('finding shots in films whose cuts are known', () => {
  const all = films(6, 0.45).map((film) => ({ film, found: foundIn(film) }));

  it('finds hard cuts to the frame, past flashes, whip pans and fades: F1 of 0.97 or better', () => {
    expect(total(all.map(({ film, found }) => scoreCuts(film, found)))).toBeGreaterThanOrEqual(0.97);
  });

  it('reports dissolves: F1 of 0.9 or better', () => {
    expect(total(all.map(({ film, found }) => scoreDissolves(film, found)))).toBeGreaterThanOrEqual(0.9);
  });

  it('takes no flash and no whip pan for a cut', () => {
    for (const { film, found } of all) {
      const cuts = found
        .filter((boundary) => boundary.start?.kind === 'cut')
        .map((boundary) => boundary.frame);
      const trapped = film.traps.filter(({ from, to }) => cuts.some((cut) => cut >= from && cut <= to));
      expect(trapped).toEqual([]);
    }
  });

  it('says how sure it is, and how long a dissolve lasts', () => {
    for (const { frame, start } of all.flatMap(({ found }) => found)) {
      expect(start?.confidence).toBeGreaterThan(0);
      expect(start?.confidence).toBeLessThanOrEqual(1);
      if (start?.kind === 'cut') expect(start.frames).toBe(0);
      else expect(start?.frames).toBeGreaterThan(0);
      expect(frame).toBeGreaterThan(0);
    }
  });

  it('finds nothing in one scene, in a still and in no frames', () => {
    expect(foundIn(makeFilm(9, [], 0))).toEqual([]);
    const [still] = makeFilm(9, [], 0).frames;
    expect(
      foundIn({
        frames: Array.from({ length: 60 }, () => still!),
        cuts: [],
        dissolves: [],
        fades: [],
        traps: [],
      }),
    ).toEqual([]);
    expect(new ShotFinder().finish()).toEqual([]);
  });
});
