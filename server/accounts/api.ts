import express, { type Express, type Request } from 'express';
import {
  accountPath,
  accountPicturePath,
  ACCOUNTS,
  ACCOUNTS_PAGE,
  SIGN_IN_BACK,
  SIGN_INS,
  signInSchema,
} from '../../src/core/posting/accounts';
import { parseBody } from '../answers';
import { readVisitorMark, renewMark, findReturningVisitor, findVisitor } from '../visitor';
import type { Accounts } from './accounts';
import { SignInError } from './oauth';

/** Reads the origin by which a request named this server: its guard lets only names of this machine in. */
export const getOrigin = (request: Request): string => `http://${request.headers.host}`;

/**
 * Adds accounts to a server: what a browser signed in to, signing in, coming back, and letting go.
 * @param beforeForgotten is told each account that is to be let go, while it can still be spoken for.
 */
export function addAccounts(
  app: Express,
  accounts: Accounts,
  beforeForgotten: (id: string) => Promise<void>,
): void {
  app.get(ACCOUNTS, (request, response) => {
    const visitor = findReturningVisitor(request, response, '/posting');
    response.json({ accounts: visitor === null ? [] : accounts.of(visitor) });
  });
  app.post(SIGN_INS, express.json({ limit: '4kb' }), async (request, response) => {
    const asked = parseBody(request, response, signInSchema);
    if (!asked) return;
    const visitor = readVisitorMark(request, response, '/posting');
    const go = await accounts.begin(visitor, { ...asked, origin: getOrigin(request) }).catch(toFault);
    if (go instanceof SignInError) response.status(503).json({ error: go.fault });
    else if (go === null) response.status(404).json({ error: 'no such outlet' });
    else response.json({ go });
  });
  app.get(SIGN_IN_BACK, async (request, response) => {
    const address = new URL(request.originalUrl, getOrigin(request));
    const ended = await accounts.end(findVisitor(request, '/posting'), address).catch(toFault);
    response.set({ 'cache-control': 'no-store', 'referrer-policy': 'no-referrer' });
    if (!(ended instanceof SignInError)) {
      renewMark(request, response, '/posting');
      return response.redirect(303, `${ended.back}${joint(ended.back)}signed-in=${ended.id}`);
    }
    return response.redirect(303, `${ACCOUNTS_PAGE}?fault=${ended.fault}`);
  });
  app.get(accountPicturePath(':id'), async (request, response) => {
    const visitor = findVisitor(request, '/posting');
    const account = visitor === null ? null : accounts.find(String(request.params.id), visitor);
    const picture = account && (await accounts.getPicture(account, getOrigin(request)).catch(() => null));
    if (!picture) return void response.status(404).json({ error: 'there is no picture' });
    // An outlet's file: it runs nothing, also where it is opened by itself.
    response.set({ 'cache-control': 'private, max-age=3600', 'content-security-policy': 'sandbox' });
    response.type(picture.type).send(picture.bytes);
  });
  app.delete(accountPath(':id'), async (request, response) => {
    const visitor = findVisitor(request, '/posting');
    const id = String(request.params.id);
    if (visitor !== null && accounts.find(id, visitor)) {
      await beforeForgotten(id);
      await accounts.forget(id, getOrigin(request));
    }
    response.status(204).end();
  });
}

const joint = (page: string): string => (page.includes('?') ? '&' : '?');

/** Takes a fault of a sign-in as an answer; anything else is none. */
function toFault(error: unknown): SignInError {
  if (error instanceof SignInError) return error;
  throw error;
}
