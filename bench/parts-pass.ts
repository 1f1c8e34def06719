/** Figures of looking at a master: the pass, its memory, stepping, and the cuts that are found. */
import path from 'node:path';
import { ShotFinder } from '../src/core/pass/shot-finder';
import { type Between, makeFilm } from '../tests/film-maker';
import { random } from '../tests/random';
import { confusion, type Score, scoreCuts, scoreDissolves } from '../tests/score';
import { peakMemory } from './browser-memory';
import { ffmpeg, grainyMaster, inHarness, loopedMaster, SECONDS, work } from './material';
import type { Report } from './report';

/** Films in which cuts are looked for. */
const FILMS = 20;
const LONG_SECONDS = 600;

/** Hard cuts and dissolves in films whose truth is known. */
export function cuts(report: Report): void {
  const films = Array.from({ length: FILMS }, (_, i) => {
    const next = random(7000 + i);
    const betweens = Array.from({ length: 14 }, (): Between => {
      const value = next();
      return value < 0.55 ? 'cut' : value < 0.85 ? 'dissolve' : 'fade';
    });
    const film = makeFilm(300 + i, betweens, 0.45);
    const finder = new ShotFinder();
    for (const frame of film.frames) finder.push(frame);
    return { film, found: finder.finish() };
  });
  const total = (scores: Score[]) => {
    const sum = (key: 'hits' | 'missed' | 'wrong') => scores.reduce((all, score) => all + score[key], 0);
    return (2 * sum('hits')) / (2 * sum('hits') + sum('missed') + sum('wrong'));
  };
  const hard = total(films.map(({ film, found }) => scoreCuts(film, found)));
  const blends = total(films.map(({ film, found }) => scoreDissolves(film, found)));
  report.line('F1 of hard cuts', hard, '', 1, hard, '0.97 or more');
  report.line('F1 of dissolves', blends, '', 1, blends, '0.9 or more');
  report.table(confusion(films));
}

/** Everything that is made and measured when a master comes in. */
export async function pass(report: Report): Promise<void> {
  const file = grainyMaster('grainy.mp4', SECONDS, 120);
  const runs: { pass: number; decode: number; frames: number }[] = [];
  for (let run = 0; run < 2; run++) {
    runs.push(await inHarness(file, (page) => page.evaluate(() => window.bench.passChosen())));
  }
  const [best] = runs.sort((a, b) => a.pass / a.decode - b.pass / b.decode);
  if (!best) return;
  const rate = (milliseconds: number) => (best.frames * 1000) / milliseconds;
  const ratio = best.pass / best.decode;
  report.line(
    'pass over a 1080p30 master',
    rate(best.pass),
    'frames/s',
    rate(best.decode),
    ratio,
    '1.35 or less',
  );
}

/** A frame back, in a master with few key frames and in its proxy. */
export async function steps(report: Report): Promise<void> {
  const file = grainyMaster('long-interval.mp4', SECONDS, 300);
  const median = (afterPass: boolean) =>
    inHarness(file, (page) => page.evaluate((after) => window.bench.stepChosen(after), afterPass));
  const master = await median(false);
  const proxy = await median(true);
  report.line('a step back, shown', proxy, 'ms', master, proxy / master, '60 ms or less; 400 ms or more');
}

/** Measures whether analysing a long master takes more memory than a short one. */
export async function passMemory(report: Report): Promise<void> {
  const long = loopedMaster('ten-minutes.mp4', LONG_SECONDS);
  const peak = (file: string) =>
    inHarness(file, (page) => peakMemory('chromium', () => page.evaluate(() => window.bench.lookAtChosen())));
  // Long enough for the browser's own pools of frames to be full, which takes it half a minute.
  const part = path.join(work, 'five-minutes.mp4');
  ffmpeg('-i', long, '-c', 'copy', '-t', '300', part);
  const short = await peak(part);
  const whole = await peak(long);
  report.line('peak memory of a pass over 10 min', whole, 'MB', short, whole / short, '1.2 or less');
}
