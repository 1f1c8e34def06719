import { type Account, SIGN_IN_BACK } from '../../src/core/posting/accounts';
import type { OutletDirectory } from '../outlets/directory';
import { type AccountPicture, OutletClientError } from '../posting/outlet-connection';
import { createId } from '../store/create-id';
import type { AccountRecords, Tokens } from './account-records';
import {
  startSignIn,
  finishSignIn,
  RefreshRefusedError,
  type OutletClient,
  refreshTokens,
  revokeTokens,
  SignInError,
} from './oauth';
import type { SignInRecords } from './sign-in-records';

/** A token is changed for a new one this long before it expires, in milliseconds. */
const EARLY = 30_000;

/** Why there is no token for an account: its person has to do something about it. */
export class AccountError extends Error {
  constructor(readonly state: 'gone' | 'expired' | 'withdrawn') {
    super(`the account is ${state}`);
  }
}

/** Accounts at outlets: signing in to them, and tokens that speak for them, which never leave the server. */
export class Accounts {
  /** Refreshes under way: an outlet may take each token once. */
  private readonly refreshing = new Map<string, Promise<Tokens>>();

  constructor(
    private readonly records: AccountRecords,
    private readonly signIns: SignInRecords,
    private readonly directory: Pick<OutletDirectory, 'find'>,
  ) {}

  of(visitor: string): Account[] {
    return this.records.of(visitor);
  }

  find(id: string, visitor: string): Account | null {
    return this.records.find(id, visitor);
  }

  /**
   * Begins to sign somebody in to an outlet.
   * @param origin that this server is called by. @param back a page of the app.
   * @returns where to go; null for an outlet that is not known. @throws SignInError `outlet-down`
   */
  async begin(
    visitor: string,
    { outlet, origin, back }: { outlet: string; origin: string; back: string },
  ): Promise<string | null> {
    const client = await this.toClient(outlet, origin);
    if (!client) return null;
    const { state, nonce, verifier, go } = await startSignIn(client);
    this.signIns.add(state, { visitor, outlet, issuer: client.issuer, verifier, nonce, back });
    return go;
  }

  /**
   * Ends a sign-in that a browser came back from.
   * @param address that it came back to, as this server is called. @returns the account, and the page to go on at.
   * @throws SignInError
   */
  async end(visitor: string | null, address: URL): Promise<{ id: string; back: string }> {
    const state = address.searchParams.get('state') ?? '';
    const begun = this.signIns.take(state);
    if (!begun) throw new SignInError('stale');
    // Whoever was sent here with another's state posts nothing in their name (RFC 9700, 4.7).
    if (begun.visitor !== visitor) throw new SignInError('not-yours');
    const way = this.directory.find(begun.outlet, address.origin)?.way;
    const client = await this.toClient(begun.outlet, address.origin);
    if (!way || client?.issuer !== begun.issuer) throw new SignInError('stale');
    const { subject, scopes, tokens } = await finishSignIn(client, { ...begun, state }, address);
    const account = await way.account(tokens.access).catch((error: unknown) => {
      // Without leave to read it is known by its number alone.
      if (error instanceof OutletClientError && error.code === 'scope')
        return { id: subject, name: `Account ${subject}`, kind: 'person' as const, picture: null };
      throw new SignInError('outlet-down', { cause: error });
    });
    if (account.id !== subject) throw new SignInError('not-verified');
    const id = this.records.keep(
      createId(),
      begun.visitor,
      { outlet: begun.outlet, account, scopes },
      tokens,
    );
    return { id, back: begun.back };
  }

  /**
   * A token that is good now, or a new one.
   * @param stale one that the outlet did not take. @throws AccountError; what else goes wrong may be tried again.
   */
  async getToken(id: string, origin: string, stale: string | null = null): Promise<string> {
    const tokens = this.records.getTokens(id);
    if (!tokens) throw new AccountError('gone');
    if (tokens.access !== stale && tokens.until - EARLY > Date.now()) return tokens.access;
    const running =
      this.refreshing.get(id) ?? this.refresh(id, origin, tokens).finally(() => this.refreshing.delete(id));
    this.refreshing.set(id, running);
    return (await running).access;
  }

  /** Fetches the picture of an account; null where it has none. @throws OutletClientError */
  async getPicture({ outlet, account }: Account, origin: string): Promise<AccountPicture | null> {
    if (account.picture === null) return null;
    return (await this.directory.find(outlet, origin)?.way.picture(account.picture)) ?? null;
  }

  /** Forgets an account here, and tells its outlet. */
  async forget(id: string, origin: string): Promise<void> {
    const outlet = this.records.getOutlet(id);
    const tokens = this.records.getTokens(id);
    this.records.forget(id);
    const client = outlet && (await this.toClient(outlet, origin).catch(() => null));
    // One that cannot be told keeps tokens that nobody has.
    if (client && tokens) await revokeTokens(client, tokens).catch(() => undefined);
  }

  sweep(now: number): void {
    this.signIns.sweep(now);
  }

  private async refresh(id: string, origin: string, tokens: Tokens): Promise<Tokens> {
    const client = await this.toClient(this.records.getOutlet(id) ?? '', origin);
    if (!client) throw new AccountError('gone');
    // Written down first: an answer that is lost, also with this server, takes the old token with it (RFC 9700, 4.14.2).
    this.records.setTokens(id, { ...tokens, asked: true });
    try {
      const fresh = await refreshTokens(client, tokens);
      this.records.setTokens(id, fresh);
      return fresh;
    } catch (error) {
      if (!(error instanceof RefreshRefusedError)) throw error;
      const state = tokens.refresh === null || tokens.asked ? 'expired' : 'withdrawn';
      this.records.setState(id, state);
      throw new AccountError(state);
    }
  }

  private async toClient(outlet: string, origin: string): Promise<OutletClient | null> {
    const found = this.directory.find(outlet, origin);
    if (!found) return null;
    const { issuer } = await found.way.abilities().catch((error: unknown) => {
      throw new SignInError('outlet-down', { cause: error });
    });
    return { issuer, ...found.client, back: `${origin}${SIGN_IN_BACK}` };
  }
}
