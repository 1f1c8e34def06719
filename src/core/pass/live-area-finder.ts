import type { StoredRect, Size } from '../picture/size';

/** Share of bright samples of every row and column over some frames: the most that any of them had. */
interface Profile {
  /** The first and the last frame that it stands for. */
  from: number;
  to: number;
  rows: Float32Array;
  columns: Float32Array;
}

/** Profiles that are kept at most; beyond, neighbours are joined, so that memory stays flat. */
const MAX_PROFILES = 2400;
/** A picture in which fewer of the samples are bright than this says nothing. */
const MIN_LIGHT = 0.1;
/** A bar's rows have less light than this share of the picture's: a station bug in a bar lights a part of a row. */
const BAR = 0.3;
const PICTURE = 0.6;
/** A bar's edge is straight: from bar to picture in this share of the side, or three samples. */
const EDGE = 0.006;
/** Narrower is none, in samples. */
const MIN_BAR = 1;
/** Bars of one shot are as wide on both sides, to this share of the side: else a dark corner passes for one. */
const UNEVEN = 0.02;
/** Profiles after which what they say is sure: a second and a half of film. */
const ENOUGH_PROFILES = 6;
/** Profiles that a shot needs to have a live area of its own. */
const MIN_PROFILES = 3;

/**
 * Computes the code above which a sample is brighter than black: limited range starts at 16, full range at 0;
 * compression adds a few levels.
 */
export const brightLevel = (fullRange: boolean): number => (fullRange ? 4 : 20);

/** Result of the search, in samples of the picture as it is stored; `live` is null where there are no bars. */
export interface FoundLive {
  /** 0…1 of the stored picture. */
  live: StoredRect | null;
  /** 0…1. */
  confidence: number;
}

/** Finds bars that are part of the picture, over the whole file and for every shot. */
export class LiveAreaFinder {
  private profiles: Profile[] = [];

  /** @param size of the stored picture, in samples. */
  constructor(private readonly size: Size) {}

  /** Takes the counts of bright samples of one frame; frames in order. */
  push(frame: number, counts: { rows: ArrayLike<number>; columns: ArrayLike<number> }): void {
    const { width, height } = this.size;
    this.profiles.push({
      from: frame,
      to: frame,
      rows: Float32Array.from(counts.rows, (count) => count / width),
      columns: Float32Array.from(counts.columns, (count) => count / height),
    });
    if (this.profiles.length > MAX_PROFILES) this.join();
  }

  /** Over the whole file. */
  whole(): FoundLive {
    return this.found(this.profiles, true);
  }

  /** Over the frames of a shot, half-open; null live where it is no other than none, or where that is uncertain. */
  between(from: number, to: number): FoundLive {
    // A frame beside a cut may be half of the other shot.
    const own = this.profiles.filter((profile) => profile.from > from && profile.to < to - 1);
    return own.length < MIN_PROFILES ? { live: null, confidence: 0 } : this.found(own, false);
  }

  private join(): void {
    const joined: Profile[] = [];
    for (let i = 0; i < this.profiles.length; i += 2) {
      const [a, b] = [this.profiles[i], this.profiles[i + 1]];
      if (a) joined.push(b ? brightest([a, b]) : a);
    }
    this.profiles = joined;
  }

  private found(profiles: readonly Profile[], whole: boolean): FoundLive {
    if (profiles.length === 0) return { live: null, confidence: 0 };
    const { rows, columns } = brightest(profiles);
    const down = findBars(rows);
    const across = findBars(columns);
    if (!down || !across) return { live: null, confidence: 0 };
    const even = (bars: Bars, side: number) =>
      Math.abs(bars.before - bars.after) <= Math.max(4, side * UNEVEN);
    const straight = even(down, this.size.height) && even(across, this.size.width);
    if (!whole && !straight) return { live: null, confidence: 0 };
    const none = down.before + down.after + across.before + across.after === 0;
    if (none) return { live: null, confidence: 1 };
    const { width, height } = this.size;
    return {
      live: {
        x: across.before / width,
        y: down.before / height,
        width: (width - across.before - across.after) / width,
        height: (height - down.before - down.after) / height,
      },
      confidence: Math.min(1, profiles.length / ENOUGH_PROFILES) * (straight ? 1 : 0.7),
    };
  }
}

function brightest(profiles: readonly Profile[]): Profile {
  const [first] = profiles;
  if (!first) throw new RangeError('no profiles');
  const rows = first.rows.slice();
  const columns = first.columns.slice();
  for (const profile of profiles) {
    profile.rows.forEach((value, i) => (rows[i] = Math.max(rows[i] as number, value)));
    profile.columns.forEach((value, i) => (columns[i] = Math.max(columns[i] as number, value)));
  }
  return { from: first.from, to: (profiles[profiles.length - 1] as Profile).to, rows, columns };
}

/** Bars at both ends of a side, in samples. */
interface Bars {
  before: number;
  after: number;
}

function findBars(profile: Float32Array): Bars | null {
  const middle = profile.slice(Math.floor(profile.length * 0.4), Math.ceil(profile.length * 0.6)).sort();
  const light = middle[Math.floor(middle.length / 2)] ?? 0;
  if (light < MIN_LIGHT) return null;
  return { before: measureBar(profile, light), after: measureBar(profile.slice().reverse(), light) };
}

/** The bar at the start of a profile: dark rows that end at a straight edge. */
function measureBar(profile: Float32Array, light: number): number {
  const most = Math.floor(profile.length * 0.45);
  // From the middle outward, so that a bug inside the bar does not end it.
  let edge = most;
  while (edge > 0 && (profile[edge - 1] as number) >= BAR * light) edge -= 1;
  if (edge < MIN_BAR) return 0;
  const dark = profile.slice(0, edge).filter((value) => value < BAR * light).length;
  if (dark < edge * 0.97) return 0;
  const reach = Math.max(3, Math.round(profile.length * EDGE));
  let inside = edge;
  while (inside < edge + reach && (profile[inside] as number) < PICTURE * light) inside += 1;
  return (profile[inside] as number) >= PICTURE * light ? edge : 0;
}
