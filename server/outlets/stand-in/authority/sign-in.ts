import { timingSafeEqual } from 'node:crypto';
import express, { type Express } from 'express';
import type { Provider } from 'oidc-provider';
import { z } from 'zod';
import { type Scope, SCOPES } from '../../../../src/core/outlets/outlet-api';
import type { RuleSheet } from '../../../../src/core/outlets/rule-sheet';
import { type Authority, signInPath } from './authority';
import { findHolder, PASSWORD } from './people';
import { signInPage } from './sign-in-page';
import { Tries } from './tries';

type Interaction = Awaited<ReturnType<Provider['interactionDetails']>>;

const formSchema = z.object({
  login: z.string().max(60).default(''),
  password: z.string().max(200).default(''),
  scope: z.union([z.string().transform((one) => [one]), z.array(z.string())]).default([]),
  act: z.enum(['allow', 'refuse']),
});

/** The policy of the other pages, under which forms go nowhere; this one's goes to its own server. */
const POLICY =
  "default-src 'self'; script-src 'none'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

const isPassword = (typed: string): boolean => {
  const [given, own] = [Buffer.alloc(200), Buffer.alloc(200)];
  given.write(typed);
  own.write(PASSWORD);
  return timingSafeEqual(given, own);
};

/** Signs out whoever else is signed in to the outlet in this browser, so that it does not ask about that. */
async function leaveOther(provider: Provider, asked: Interaction, account: string): Promise<void> {
  const uid = asked.session?.uid;
  const session = uid === undefined ? undefined : await provider.Session.findByUid(uid);
  if (!session || session.accountId === account) return;
  await session.destroy();
  delete asked.session;
  await asked.save(asked.exp - Math.floor(Date.now() / 1000));
}

/** Adds the page on which somebody signs in to an outlet. */
export function addSignIn(app: Express, { outlet, name }: RuleSheet, authority: Authority): void {
  const tries = new Tries();
  const body = express.urlencoded({ extended: false, limit: '4kb' });

  app.use(signInPath(outlet, ':id'), (_request, response, next) => {
    response.set({
      'content-security-policy': POLICY,
      'cache-control': 'no-store',
      // Without one, a form says nothing of where it comes from, and is not let in.
      'referrer-policy': 'same-origin',
    });
    next();
  });
  app.get(signInPath(outlet, ':id'), async (request, response) => {
    const asked = await authority.at(`http://${request.headers.host}`).interactionDetails(request, response);
    response.type('html').send(renderPage(asked, null));
  });
  app.post(signInPath(outlet, ':id'), body, async (request, response) => {
    const provider = authority.at(`http://${request.headers.host}`);
    const asked = await provider.interactionDetails(request, response);
    const form = formSchema.safeParse(request.body);
    if (form.success && form.data.act === 'refuse') {
      const refused = { error: 'access_denied', error_description: 'it was refused on the sign-in page' };
      return provider.interactionFinished(request, response, refused);
    }
    const login = form.success ? form.data.login.trim().toLowerCase() : '';
    const holder = findHolder(login);
    const isFree = tries.mayTry(login);
    if (!form.success || !isFree || !holder || !isPassword(form.data.password)) {
      if (isFree) tries.failed(login);
      const problem = isFree
        ? 'The name or the password is wrong. Look at the list below.'
        : 'Too many tries. Wait a minute, and try again.';
      response
        .status(isFree ? 401 : 429)
        .type('html')
        .send(renderPage(asked, problem));
      return undefined;
    }
    await leaveOther(provider, asked, holder.id);
    const grant = new provider.Grant({ accountId: holder.id, clientId: String(asked.params.client_id) });
    const allowed = SCOPES.filter((scope) => form.data.scope.includes(scope));
    grant.addOIDCScope(['openid', 'offline_access', ...allowed].join(' '));
    grant.rejectOIDCScope(SCOPES.filter((scope) => !allowed.includes(scope)).join(' '));
    const grantId = await grant.save();
    return provider.interactionFinished(
      request,
      response,
      { login: { accountId: holder.id }, consent: { grantId } },
      { mergeWithLastSubmission: false },
    );
  });

  function renderPage(
    { uid, params }: { uid: string; params: Record<string, unknown> },
    problem: string | null,
  ): string {
    const asked = String(params.scope).split(' ');
    return signInPage({
      outlet: name,
      action: signInPath(outlet, uid),
      client: params.client_id === authority.client.id ? authority.client.name : String(params.client_id),
      scopes: SCOPES.filter((scope): scope is Scope => asked.includes(scope)),
      problem,
    });
  }
}
