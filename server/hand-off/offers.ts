import { randomBytes } from 'node:crypto';
import { EventEmitter } from 'node:events';
import { stat } from 'node:fs/promises';
import { clearTimeout, setTimeout } from 'node:timers';
import type { RandomId } from '../../src/core/figures/random-id';
import { type Arrival, type Offer, OFFER_LIFE, type OfferOrder } from '../../src/core/posting/hand-off';
import { sha256 } from '../sha256';
import type { UploadEndpoint } from '../uploads/upload-endpoint';

/** An offer as it is kept: with whose it is, and what opens it. */
export interface KeptOffer extends Omit<Offer, 'address'> {
  visitor: string;
  token: string;
}

/** Letters of a token: base 32 of RFC 4648, small, so that a person can type it. */
const LETTERS = 'abcdefghijklmnopqrstuvwxyz234567';
/** Letters that 128 bits need. */
const TOKEN_LETTERS = 26;

/** A name that nobody guesses: 26 letters of 5 random bits each, 130 bits. */
function newToken(): string {
  return Array.from(randomBytes(TOKEN_LETTERS), (byte) => LETTERS[byte % LETTERS.length]).join('');
}

/** Files that phones may fetch: each under a token, for ten minutes, until it has arrived. They end with the server. */
export class Offers {
  readonly news = new EventEmitter<{ change: [KeptOffer] }>();
  private readonly kept = new Map<string, KeptOffer>();
  private readonly clocks = new Map<string, ReturnType<typeof setTimeout>>();

  constructor(
    readonly door: UploadEndpoint,
    /** How long a file plays, in seconds; null for a still. */
    private readonly lengthOf: (file: string) => Promise<number | null>,
    private readonly life = OFFER_LIFE,
  ) {
    this.news.setMaxListeners(0);
  }

  /** Offers a file; null where it is not here, or not whole. The same order again is the same offer while it is open. */
  async open(order: OfferOrder, visitor: string): Promise<KeptOffer | null> {
    const known = this.kept.get(order.id);
    if (known && known.visitor !== visitor) return null;
    if (known?.state === 'open') return this.instead(known, order.upload);
    if ((await this.door.state(order.upload)) !== 'whole') return null;
    const file = this.door.getFile(order.upload);
    const { size } = await stat(file);
    const hash = await sha256(file);
    const seconds = await this.lengthOf(file);
    // The same was asked for while this one was read.
    const other = this.kept.get(order.id);
    if (other?.state === 'open') return this.instead(other, order.upload);
    const offer: KeptOffer = {
      ...order,
      ...{ visitor, token: newToken(), state: 'open', bytes: size, sha256: hash },
      version: (known?.version ?? 0) + 1,
      seconds,
      ...{ until: Date.now() + this.life, starts: 0, fetched: 0, found: null },
    };
    this.kept.set(offer.id, offer);
    this.wind(offer);
    this.news.emit('change', offer);
    return offer;
  }

  /** An offer that stands already; a copy of its file that came for it once more goes. */
  private async instead(offer: KeptOffer, upload: RandomId): Promise<KeptOffer> {
    if (upload !== offer.upload) await this.door.forget(upload);
    return offer;
  }

  of(visitor: string): KeptOffer[] {
    return [...this.kept.values()].filter((offer) => offer.visitor === visitor);
  }

  find(id: string, visitor: string | null): KeptOffer | null {
    const offer = this.kept.get(id);
    return offer?.visitor === visitor ? offer : null;
  }

  /** The offer that a token opens, or once opened. */
  withToken(token: string): KeptOffer | null {
    return [...this.kept.values()].find((offer) => offer.token === token) ?? null;
  }

  /** Gives an open offer its whole life once more. */
  longer({ id }: KeptOffer): KeptOffer | null {
    const changed = this.change(id, { until: Date.now() + this.life });
    if (changed) this.wind(changed);
    return changed;
  }

  /** Notes that a phone begins to fetch. */
  begun({ id }: KeptOffer): void {
    this.change(id, { starts: (this.kept.get(id)?.starts ?? 0) + 1 });
  }

  /** Notes how far into its file a phone came, in bytes. */
  came({ id }: KeptOffer, to: number): void {
    const offer = this.kept.get(id);
    if (offer && to > offer.fetched) this.change(id, { fetched: Math.min(to, offer.bytes) });
  }

  /** Takes what a phone found of what came to it; the same file ends the offer. */
  async arrived({ id, bytes, sha256: left }: KeptOffer, arrival: Arrival): Promise<boolean> {
    const same = arrival.bytes === bytes && arrival.sha256 === left;
    this.change(id, { found: { ...arrival, same } });
    if (same) await this.end(id, 'arrived');
    return same;
  }

  /** Takes an offer back. */
  close({ id }: KeptOffer): Promise<void> {
    return this.end(id, 'closed');
  }

  /** Ends all that is offered, with the server. */
  stop(): void {
    for (const clock of this.clocks.values()) clearTimeout(clock);
  }

  async sweep(before: number): Promise<void> {
    for (const { id, state, until } of this.kept.values()) {
      if (state !== 'open' && until < before) this.kept.delete(id);
    }
    await this.door.sweep(before, (upload) => this.isOffered(upload));
  }

  private wind({ id, until }: KeptOffer): void {
    clearTimeout(this.clocks.get(id));
    this.clocks.set(
      id,
      setTimeout(() => void this.end(id, 'expired'), until - Date.now()),
    );
  }

  /** Ends an open offer: its token opens nothing any more, and its file goes. */
  private async end(id: string, state: Exclude<Offer['state'], 'open'>): Promise<void> {
    clearTimeout(this.clocks.get(id));
    this.clocks.delete(id);
    const ended = this.change(id, { state });
    if (ended && !this.isOffered(ended.upload)) await this.door.forget(ended.upload);
  }

  /** Tells whether an open offer is of an upload: two may be of the same. */
  private isOffered(upload: string): boolean {
    return [...this.kept.values()].some((offer) => offer.state === 'open' && offer.upload === upload);
  }

  /** Changes an open offer; null for one that has ended. */
  private change(id: string, change: Partial<KeptOffer>): KeptOffer | null {
    const known = this.kept.get(id);
    if (known?.state !== 'open') return null;
    const changed = { ...known, ...change, version: known.version + 1 };
    this.kept.set(id, changed);
    this.news.emit('change', changed);
    return changed;
  }
}
