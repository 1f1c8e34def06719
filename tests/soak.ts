import { appendFileSync } from 'node:fs';

/** How much of a proof is tried: a short piece in `npm test`, all of it in `npm run soak`. */
export const trials = <T>(short: T, long: T): T => (process.env.GUSSET_SOAK ? long : short);

/** Seed of the trials; the environment may name another. */
export const SEED = Number(process.env.GUSSET_SEED ?? 20261126);

/** Numbers from 0 up to 1 that are the same for the same seed: a linear congruential generator (Knuth, TAOCP 3.3.4). */
export function seeded(seed: number): () => number {
  let state = BigInt(seed);
  return () => {
    state = (state * 6364136223846793005n + 1442695040888963407n) & 0xffffffffffffffffn;
    return Number(state >> 11n) / 2 ** 53;
  };
}

/** Some cases of many, drawn by the seed, in their order: so many in `npm test`, all of them in `npm run soak`. */
export function drawn<T>(cases: readonly T[], short: number): T[] {
  const next = seeded(SEED);
  const places = cases.map((_, i) => ({ i, lot: next() })).sort((a, b) => a.lot - b.lot);
  const chosen = new Set(places.slice(0, trials(short, cases.length)).map(({ i }) => i));
  return cases.filter((_, i) => chosen.has(i));
}

/** A test that `npm run soak` alone runs, since it is long and `npm test` has another of the same. */
export const inSoak: typeof it.skip = process.env.GUSSET_SOAK ? it : it.skip;

/** Tells a figure of a long proof, for docs/soak.md. */
export function soakFigure(proof: string, found: string): void {
  const file = process.env.GUSSET_SOAK;
  if (file) appendFileSync(file, `${JSON.stringify({ proof, found, seed: SEED })}\n`);
}
