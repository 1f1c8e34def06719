import * as oauth from 'oauth4webapi';
import { SCOPES, type Scope } from '../../src/core/outlets/outlet-api';
import type { SignInFault } from '../../src/core/posting/accounts';
import { isLoopback } from '../loopback';
import type { Tokens } from './account-records';

/** An answer of an authorization server is waited for so long, in milliseconds. */
const PATIENCE = 15_000;
/** Without a word on it, an access token is taken to be good for so long, in seconds. */
const PLAIN_LIFE = 300;
/** However long an outlet says that one is good, in seconds: a year. */
const MAX_LIFE = 365 * 24 * 3600;

/** Who we are at an outlet's authorization server. */
export interface OutletClient {
  issuer: string;
  id: string;
  secret: string;
  /** Where it sends people back to. */
  back: string;
}

/** State of a sign-in between its two ends. */
export interface PendingSignIn {
  state: string;
  nonce: string;
  verifier: string;
}

/** A sign-in that came to nothing. */
export class SignInError extends Error {
  constructor(
    readonly fault: SignInFault,
    options?: ErrorOptions,
  ) {
    super(`the sign-in failed: ${fault}`, options);
  }
}

/** A refresh that an outlet did not grant: what was allowed was taken back, or is too old. */
export class RefreshRefusedError extends Error {}

/** Plain HTTP is for outlets on this machine alone. */
const toOptions = ({ issuer }: OutletClient) => ({
  [oauth.allowInsecureRequests]: isLoopback(new URL(issuer).hostname),
  signal: () => AbortSignal.timeout(PATIENCE),
});

const toClient = ({ id }: OutletClient): oauth.Client => ({ client_id: id });

async function discoverServer(client: OutletClient): Promise<oauth.AuthorizationServer> {
  const issuer = new URL(client.issuer);
  const response = await oauth.discoveryRequest(issuer, toOptions(client));
  return oauth.processDiscoveryResponse(issuer, response);
}

/**
 * Begins a sign-in by the authorization code with PKCE (RFC 6749, 4.1; RFC 7636; RFC 9700, 2.1).
 * @throws SignInError `outlet-down`
 */
export async function startSignIn(client: OutletClient): Promise<PendingSignIn & { go: string }> {
  const server = await discoverServer(client).catch((error: unknown) => {
    throw new SignInError('outlet-down', { cause: error });
  });
  const pending = {
    state: oauth.generateRandomState(),
    nonce: oauth.generateRandomNonce(),
    verifier: oauth.generateRandomCodeVerifier(),
  };
  const go = new URL(server.authorization_endpoint ?? '');
  const asked = {
    client_id: client.id,
    response_type: 'code',
    redirect_uri: client.back,
    scope: ['openid', 'offline_access', ...SCOPES].join(' '),
    state: pending.state,
    nonce: pending.nonce,
    code_challenge: await oauth.calculatePKCECodeChallenge(pending.verifier),
    code_challenge_method: 'S256',
    // The person chooses each time whom to sign in as.
    prompt: 'login consent',
  };
  for (const [name, value] of Object.entries(asked)) go.searchParams.set(name, value);
  return { ...pending, go: go.href };
}

/** Result of a sign-in. */
export interface SignInResult {
  subject: string;
  scopes: Scope[];
  tokens: Tokens;
}

/**
 * Ends a sign-in: checks what came back against what was begun, and changes the code for tokens.
 * @param address that was come back to. @throws SignInError
 */
export async function finishSignIn(
  client: OutletClient,
  { state, nonce, verifier }: PendingSignIn,
  address: URL,
): Promise<SignInResult> {
  try {
    const server = await discoverServer(client);
    const answer = oauth.validateAuthResponse(server, toClient(client), address, state);
    const response = await oauth.authorizationCodeGrantRequest(
      server,
      toClient(client),
      oauth.ClientSecretBasic(client.secret),
      answer,
      client.back,
      verifier,
      toOptions(client),
    );
    const given = await oauth.processAuthorizationCodeResponse(server, toClient(client), response, {
      expectedNonce: nonce,
      requireIdToken: true,
    });
    const subject = oauth.getValidatedIdTokenClaims(given)?.sub;
    if (subject === undefined) throw new SignInError('not-verified');
    const scopes = (given.scope ?? '').split(' ');
    return {
      subject,
      scopes: SCOPES.filter((scope) => scopes.includes(scope)),
      tokens: toTokens(given, null),
    };
  } catch (error) {
    if (error instanceof SignInError) throw error;
    throw new SignInError(toFault(error), { cause: error });
  }
}

function toFault(error: unknown): SignInFault {
  if (error instanceof oauth.AuthorizationResponseError)
    return error.error === 'access_denied' ? 'refused' : 'not-verified';
  if (error instanceof oauth.OperationProcessingError)
    return error.message.includes('"iss"') ? 'mixed-up' : 'not-verified';
  return error instanceof oauth.ResponseBodyError ? 'not-verified' : 'outlet-down';
}

/** Gets new tokens for old ones. @throws NotRefreshed; what else goes wrong may be tried again. */
export async function refreshTokens(client: OutletClient, { refresh }: Tokens): Promise<Tokens> {
  if (refresh === null) throw new RefreshRefusedError('there is nothing to refresh it with');
  const server = await discoverServer(client);
  const response = await oauth.refreshTokenGrantRequest(
    server,
    toClient(client),
    oauth.ClientSecretBasic(client.secret),
    refresh,
    toOptions(client),
  );
  try {
    return toTokens(await oauth.processRefreshTokenResponse(server, toClient(client), response), refresh);
  } catch (error) {
    if (error instanceof oauth.ResponseBodyError && error.error === 'invalid_grant')
      throw new RefreshRefusedError('the outlet gives no new one', { cause: error });
    throw error;
  }
}

/** Tells the outlet that its tokens are not used any more (RFC 7009). */
export async function revokeTokens(client: OutletClient, { access, refresh }: Tokens): Promise<void> {
  const server = await discoverServer(client);
  const response = await oauth.revocationRequest(
    server,
    toClient(client),
    oauth.ClientSecretBasic(client.secret),
    refresh ?? access,
    toOptions(client),
  );
  await oauth.processRevocationResponse(response);
}

function toTokens(given: oauth.TokenEndpointResponse, before: string | null): Tokens {
  const seconds = Math.min(given.expires_in ?? PLAIN_LIFE, MAX_LIFE);
  return {
    access: given.access_token,
    // Where a new one is not given, the old one stays good (RFC 6749, 6).
    refresh: given.refresh_token ?? before,
    until: Date.now() + seconds * 1000,
  };
}
