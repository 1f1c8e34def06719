import { useEffect, useState } from 'react';
import type { Source } from '@core/master/source';
import { passNames, STRIP } from '@core/pass/pass';
import { storedFile } from '@media/store/storage';
import { usePasses } from '../master';

/** Addresses of sheets that were opened in this visit. */
const addresses = new Map<string, string>();

/** A small picture on a sheet. */
export interface Tile {
  sheet: string;
  /** Place on the sheet, in its pixels. */
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The density whose pictures are nearest to `frames` apart, not further where that can be. */
function chooseLevel(frames: number): number {
  let level = 0;
  STRIP.every.forEach((every, i) => {
    if (every <= frames) level = i;
  });
  return level;
}

/**
 * Small pictures from the sheets that the pass made, nearest to the frames wanted.
 * @param frames the same array while the same are wanted. @returns by frame; empty until the sheets are there.
 */
export function useStrip(source: Source, frames: readonly number[], apart: number): Record<number, Tile> {
  const pass = usePasses((all) => all[source.fingerprint]);
  const [, opened] = useState(0);
  const tileWidth = pass?.state === 'done' ? pass.pass.strip.tileWidth : 0;
  const level = chooseLevel(apart);
  const every = STRIP.every[level] ?? 12;
  const perSheet = STRIP.across * STRIP.down;
  const toPlace = (frame: number) => {
    const n = Math.min(Math.round(frame / every), Math.floor((source.frames - 1) / every));
    return { sheet: Math.floor(n / perSheet), cell: n % perSheet };
  };
  const wanted = tileWidth === 0 ? '' : [...new Set(frames.map((frame) => toPlace(frame).sheet))].join();
  useEffect(() => {
    let gone = false;
    const open = async () => {
      for (const sheet of wanted === '' ? [] : wanted.split(',').map(Number)) {
        const name = passNames(source.fingerprint).sheet(level, sheet);
        if (addresses.has(name)) continue;
        const file = await storedFile('passes', name);
        if (file) addresses.set(name, URL.createObjectURL(file));
      }
      if (!gone) opened((count) => count + 1);
    };
    void open();
    return () => {
      gone = true;
    };
  }, [wanted, level, source.fingerprint]);
  const tiles: Record<number, Tile> = {};
  if (tileWidth === 0) return tiles;
  for (const frame of frames) {
    const { sheet, cell } = toPlace(frame);
    const address = addresses.get(passNames(source.fingerprint).sheet(level, sheet));
    if (!address) continue;
    tiles[frame] = {
      sheet: address,
      x: (cell % STRIP.across) * tileWidth,
      y: Math.floor(cell / STRIP.across) * STRIP.tileHeight,
      width: tileWidth,
      height: STRIP.tileHeight,
    };
  }
  return tiles;
}

/** The waveform that the pass made: fifty peaks a second, or null until it is there. */
export function useWave(source: Source): Uint8Array | null {
  const state = usePasses((all) => all[source.fingerprint]?.state);
  const [wave, setWave] = useState<{ of: string; peaks: Uint8Array } | null>(null);
  useEffect(() => {
    if (state !== 'done' || !source.audio) return;
    void storedFile('passes', passNames(source.fingerprint).wave).then(async (file) => {
      if (file) setWave({ of: source.fingerprint, peaks: new Uint8Array(await file.arrayBuffer()) });
    });
  }, [state, source.fingerprint, source.audio]);
  return wave?.of === source.fingerprint ? wave.peaks : null;
}
