import type { Abilities, OutletAccount, OutletError, OutletPost } from '../../src/core/outlets/outlet-api';
import type { LongVideo } from '../../src/core/posting/accounts';
import type { Audience } from '../../src/core/outlets/audience';
import type { PostForm } from '../../src/core/outlets/post-form';

/** A file that is sent, and how far an earlier try came. */
export interface Shipment {
  file: string;
  bytes: number;
  /** Where it is being uploaded to; null before it was begun. */
  address: string | null;
}

/** Callbacks of an upload. */
export interface ShipmentNews {
  /** It was begun: from here on it can be gone on with. */
  began(address: string): void;
  sent(bytes: number): void;
}

/** An outlet did not do what it was asked for. */
export class OutletClientError extends Error {
  constructor(
    /** Its own code; `down` where it could not be reached, `answer` where it said what nobody understands. */
    readonly code: OutletError | 'answer',
    detail: string,
    /** Seconds after which it may be asked again, where it said so. */
    readonly retryAfter: number | null = null,
  ) {
    super(detail);
  }
}

/** A picture of an account, as its outlet answers. */
export interface AccountPicture {
  /** Its media type. */
  type: string;
  bytes: Buffer;
}

/** The way to one outlet. Everything but what it can do, and pictures, asks for a token. A post's page is an address for a browser. @throws OutletClientError, each of them */
export interface OutletConnection {
  abilities(): Promise<Abilities>;
  account(token: string): Promise<OutletAccount>;
  /** Fetches the picture of an account. @param address from the outlet's root. */
  picture(address: string): Promise<AccountPicture>;
  /** Sends a file, or what is missing of it. @returns what a post names it by. */
  upload(token: string, shipment: Shipment, news: ShipmentNews, signal: AbortSignal): Promise<string>;
  /** Posts what is up. The same key is one post, however often it is asked for. */
  post(token: string, key: string, form: PostForm): Promise<OutletPost>;
  stateOf(token: string, id: string): Promise<OutletPost>;
  setAudience(token: string, id: string, audience: Audience): Promise<OutletPost>;
  /** Resolves also where it is gone already. */
  takeDown(token: string, id: string): Promise<void>;
  /** Fetches what a viewer gets into a file. */
  fetchViewed(token: string, id: string, to: string): Promise<void>;
  collections(token: string): Promise<string[]>;
  longVideos(token: string, search: string): Promise<LongVideo[]>;
}
