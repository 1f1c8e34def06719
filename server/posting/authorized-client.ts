import type { Accounts } from '../accounts/accounts';
import type { OutletDirectory } from '../outlets/directory';
import { OutletClientError, type OutletConnection } from './outlet-connection';

/** Speaks to outlets in the name of accounts. */
export class AuthorizedClient {
  constructor(
    private readonly accounts: Accounts,
    private readonly directory: OutletDirectory,
    /** Origin that this server names itself by. */
    private readonly origin: string,
  ) {}

  /**
   * Does something at an outlet with a token, and once more with a new one where the outlet does not take it any longer.
   * @throws OutletClientError, AccountError, and what goes wrong while a token is refreshed.
   */
  async as<T>(
    { account, outlet }: { account: string; outlet: string },
    act: (way: OutletConnection, token: string) => Promise<T>,
  ): Promise<T> {
    const way = this.directory.find(outlet, this.origin)?.way;
    if (!way) throw new OutletClientError('bad-request', `no way to ${outlet} is known`);
    const token = await this.accounts.getToken(account, this.origin);
    try {
      return await act(way, token);
    } catch (error) {
      if (!(error instanceof OutletClientError && error.code === 'token')) throw error;
      return act(way, await this.accounts.getToken(account, this.origin, token));
    }
  }
}
