import type { Request, RequestHandler, Response } from 'express';
import { type Configuration, Provider } from 'oidc-provider';
import { SCOPES } from '../../../../src/core/outlets/outlet-api';
import type { Secrets } from '../../../store/secrets';
import type { Database } from '../../../store/database';
import type { OutletClientId } from '../../directory';
import { GrantStore } from './grant-store';

/** Who tries an outlet's interface by hand: a program with no server of its own (RFC 8252, 7.3). */
export const CHECK_CLIENT = { id: 'outlet-check', back: 'http://127.0.0.1/outlet-check' };

/** How long what it gives out is good for, in seconds. */
const LIVES = {
  AccessToken: 600,
  AuthorizationCode: 60,
  IdToken: 600,
  Interaction: 900,
  Session: 14 * 86_400,
  Grant: 180 * 86_400,
  RefreshToken: 90 * 86_400,
};

/** Where an outlet's authorization server lies, from the server's root. */
export const authorityPath = (outlet: string): string => `/outlets/${outlet}/authority`;
/** Its sign-in page. */
export const signInPath = (outlet: string, id: string): string => `/outlets/${outlet}/sign-in/${id}`;

/** A server that people sign in for. */
export interface RegisteredClient extends OutletClientId {
  /** Name that people are shown as they sign in. */
  name: string;
  /** Where they are sent back to. @param origin that the outlet is called by. */
  backFrom(origin: string): string;
}

/** Who a token speaks for, and what it allows. */
export interface Access {
  account: string;
  scopes: ReadonlySet<string>;
}

/**
 * The authorization server of an outlet's stand-in (OAuth 2.0 with PKCE, RFC 6749 and 7636; OpenID Connect Core 1.0).
 * It has one issuer for each name that this machine is called by.
 */
export class Authority {
  private readonly providers = new Map<string, Provider>();

  constructor(
    private readonly outlet: string,
    private readonly database: Database,
    private readonly secrets: Secrets,
    readonly client: RegisteredClient,
  ) {}

  /** @param origin that it is called by. */
  at(origin: string): Provider {
    const known = this.providers.get(origin);
    if (known) return known;
    const provider = new Provider(`${origin}${authorityPath(this.outlet)}`, this.configuration(origin));
    this.providers.set(origin, provider);
    return provider;
  }

  /** Answers all that lies under its path. */
  readonly handler: RequestHandler = (request, response) =>
    this.at(`http://${request.headers.host}`).callback()(request, response);

  /** Finds what a token allows; null for one that is invalid or expired. */
  async checkAccess(origin: string, token: string): Promise<Access | null> {
    const found = await this.at(origin).AccessToken.find(token);
    if (!found?.accountId) return null;
    return { account: found.accountId, scopes: found.scopes };
  }

  /** Who is signed in to the outlet in the browser that asks; null for nobody. */
  async findViewer(request: Request, response: Response): Promise<string | null> {
    const provider = this.at(`http://${request.headers.host}`);
    const session = await provider.Session.get(provider.app.createContext(request, response));
    return session.accountId ?? null;
  }

  /** Makes every access token expire now. */
  expireTokens(): void {
    this.database.prepare(`delete from grants where outlet = ? and kind = 'AccessToken'`).run([this.outlet]);
  }

  /** Takes back all that accounts have allowed. */
  withdrawConsent(): void {
    this.database
      .prepare(`delete from grants where outlet = ? and kind in ('AccessToken', 'RefreshToken', 'Grant')`)
      .run([this.outlet]);
  }

  private configuration(origin: string): Configuration {
    const { outlet, database, secrets, client } = this;
    return {
      adapter: (kind: string) => new GrantStore(database, outlet, kind),
      clients: [
        {
          client_id: client.id,
          client_name: client.name,
          client_secret: client.secret,
          redirect_uris: [client.backFrom(origin)],
          grant_types: ['authorization_code', 'refresh_token'],
          response_types: ['code'],
          id_token_signed_response_alg: 'ES256',
        },
        {
          client_id: CHECK_CLIENT.id,
          client_name: 'A check of this outlet',
          application_type: 'native',
          token_endpoint_auth_method: 'none',
          redirect_uris: [CHECK_CLIENT.back],
          grant_types: ['authorization_code', 'refresh_token'],
          response_types: ['code'],
          id_token_signed_response_alg: 'ES256',
        },
      ],
      jwks: { keys: [secrets.signingKey()] },
      cookies: {
        keys: [secrets.cookieKey(outlet)],
        names: {
          session: `${outlet}_session`,
          interaction: `${outlet}_interaction`,
          resume: `${outlet}_resume`,
        },
        long: { httpOnly: true, sameSite: 'lax', path: `/outlets/${outlet}/` },
        short: { httpOnly: true, sameSite: 'lax' },
      },
      claims: { openid: ['sub'] },
      scopes: ['openid', 'offline_access', ...SCOPES],
      pkce: { required: () => true },
      features: {
        devInteractions: { enabled: false },
        revocation: { enabled: true },
        userinfo: { enabled: false },
        rpInitiatedLogout: { enabled: false },
      },
      findAccount: (_context, id) => ({ accountId: id, claims: () => ({ sub: id }) }),
      interactions: { url: (_context, { uid }) => signInPath(outlet, uid) },
      issueRefreshToken: (_context, client, code) =>
        client.grantTypeAllowed('refresh_token') && code.scopes.has('offline_access'),
      rotateRefreshToken: true,
      routes: { authorization: '/authorize', token: '/token', revocation: '/revoke', jwks: '/keys' },
      clientBasedCORS: () => false,
      ttl: LIVES,
      renderError(context, { error, error_description: words }) {
        context.type = 'text/plain';
        context.body = `Nobody was signed in: ${words ?? error}. Go back to Gusset and start again.`;
      },
    };
  }
}
