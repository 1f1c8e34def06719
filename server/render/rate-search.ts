import { chooseQuantiser, type TriedQuantiser } from './quantiser-search';

/** Factor by which the result may differ from the rate that is wanted. */
const NEAR = 1.1;
/** A rate is tried so often; then what came nearest last is taken for it. */
const MAX_TRIES = 4;

/**
 * Finds, for each of several rates, a quantiser at which a clip comes to about it, in few tries: what is off one rate may
 * be what another asks for.
 */
export class RateSearch {
  private readonly known: TriedQuantiser[] = [];
  private readonly left: number[];
  private tries = 0;

  /** @param rates in bits a second, rising. @param maxTries of each. */
  constructor(
    private readonly rates: readonly number[],
    private readonly maxTries = MAX_TRIES,
  ) {
    this.left = rates.map((_, n) => n);
  }

  /** The rate that is looked for, in bits a second. */
  get wanted(): number {
    return this.rates[this.left[0] ?? this.rates.length - 1] as number;
  }

  /** The quantiser to try next; null once every rate has its own. */
  next(): number | null {
    return this.left.length > 0 ? chooseQuantiser(this.wanted, this.known) : null;
  }

  /**
   * Takes what a quantiser came to, in bits a second.
   * @returns the place of the rate that it is taken for; null where it is near none that is left.
   */
  take(quantiser: number, came: number): number | null {
    const isKnown = this.known.some((other) => other.quantiser === quantiser);
    this.known.push({ quantiser, came });
    const off = (place: number) => Math.abs(Math.log(came / (this.rates[place] as number)));
    const nearest = this.left.reduce((best, place) => (off(place) < off(best) ? place : best));
    const first = this.left[0] as number;
    const isLast = isKnown || ++this.tries >= this.maxTries;
    const found = off(nearest) <= Math.log(NEAR) ? nearest : isLast ? first : null;
    if (found === null) return null;
    this.left.splice(this.left.indexOf(found), 1);
    if (found === first) this.tries = 0;
    return found;
  }
}
