import { createHash, randomBytes } from 'node:crypto';
import { CHECK_CLIENT as CHECK } from '../server/outlets/stand-in/authority/authority';
import { parseRandomId, type RandomId } from '../src/core/figures/random-id';

/** Somebody with a browser of a kind: it keeps cookies, and goes where it is sent only when told to. */
export interface Browsing {
  readonly origin: string;
  fetch(address: string, init?: RequestInit): Promise<Response>;
}

/** Fields of a sign-in page. */
export interface SignInForm {
  login: string;
  password?: string;
  scopes?: readonly string[];
  act?: 'allow' | 'refuse';
}

/** Where an answer sends a browser to; the answer itself where it sends it nowhere. */
export async function follow(who: Browsing, address: string, until: (to: URL) => boolean): Promise<URL> {
  let at = new URL(address, who.origin);
  for (let n = 0; n < 10; n++) {
    if (until(at)) return at;
    const response = await who.fetch(at.href, { redirect: 'manual' });
    const location = response.headers.get('location');
    if (location === null)
      throw new Error(`${at.href} answered ${response.status}: ${await response.text()}`);
    at = new URL(location, at);
  }
  throw new Error(`no end to ${at.href}`);
}

/** Begins a sign-in through this server. @returns where its person goes. */
export async function beginSignIn(who: Browsing, outlet: string, back = '/accounts'): Promise<string> {
  const response = await who.fetch('/posting/api/sign-ins', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ outlet, back }),
  });
  if (!response.ok) throw new Error(`the sign-in was not begun: ${response.status} ${await response.text()}`);
  return ((await response.json()) as { go: string }).go;
}

/** Fills in an outlet's sign-in page, and goes on until somewhere. @returns where that is. */
export async function fillIn(
  who: Browsing,
  go: string,
  { login, password = 'kite-day', scopes = ['read', 'post'], act = 'allow' }: SignInForm,
  until: (to: URL) => boolean,
): Promise<URL> {
  const page = await follow(who, go, (to) => to.pathname.includes('/sign-in/'));
  const body = new URLSearchParams({ login, password, act });
  for (const scope of scopes) body.append('scope', scope);
  const response = await who.fetch(page.href, { method: 'POST', body, redirect: 'manual' });
  const location = response.headers.get('location');
  if (location === null)
    throw new Error(`the sign-in page answered ${response.status}: ${await response.text()}`);
  return follow(who, new URL(location, page).href, until);
}

/** Signs in through this server, all the way. @returns what the account is called here. */
export async function signIn(who: Browsing, outlet: string, login: string): Promise<RandomId> {
  const go = await beginSignIn(who, outlet);
  const end = await fillIn(who, go, { login }, (to) => to.pathname === '/accounts');
  const id = end.searchParams.get('signed-in');
  if (id === null) throw new Error(`the sign-in ended at ${end.href}`);
  return parseRandomId(id);
}

/** A token of an outlet's own for somebody, as a program gets one that checks the outlet (RFC 8252, 7.3). */
export async function outletToken(
  who: Browsing,
  outlet: string,
  login = 'odlin',
  scopes: readonly string[] = ['read', 'post'],
): Promise<string> {
  const authority = `${who.origin}/outlets/${outlet}/authority`;
  const verifier = randomBytes(32).toString('base64url');
  const asked = new URLSearchParams({
    client_id: CHECK.id,
    redirect_uri: CHECK.back,
    response_type: 'code',
    scope: `openid ${scopes.join(' ')}`,
    state: 'check',
    prompt: 'login consent',
    code_challenge: createHash('sha256').update(verifier).digest('base64url'),
    code_challenge_method: 'S256',
  });
  const end = await fillIn(who, `${authority}/authorize?${asked}`, { login, scopes }, ({ href }) =>
    href.startsWith(CHECK.back),
  );
  const response = await who.fetch(`${authority}/token`, {
    method: 'POST',
    body: new URLSearchParams({
      client_id: CHECK.id,
      redirect_uri: CHECK.back,
      grant_type: 'authorization_code',
      code: end.searchParams.get('code') ?? '',
      code_verifier: verifier,
    }),
  });
  return ((await response.json()) as { access_token: string }).access_token;
}
