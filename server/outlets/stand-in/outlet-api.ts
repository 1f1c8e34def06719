import express, { type Express, type Request, type RequestHandler, type Response } from 'express';
import {
  type Abilities,
  CONTRACT,
  KEY_HEADER,
  OUTLET_API,
  type OutletError,
  postChangeSchema,
  type Scope,
} from '../../../src/core/outlets/outlet-api';
import { MAX_FORM_BYTES, outletRoot, postFormSchema } from '../../../src/core/outlets/post-form';
import type { RuleSheet } from '../../../src/core/outlets/rule-sheet';
import { sendFilm } from '../../send-file';
import { type Authority, authorityPath } from './authority/authority';
import { findOutletAccount } from './authority/people';
import type { StandInTraits } from '../outlet';
import { findVideos } from './long-videos';
import type { TakenPost, TakenPosts } from './taken-posts';
import type { Posts } from './posts';

/** Why nothing is done, in words and as a status. */
const ERRORS: Record<OutletError, [status: number, detail: string]> = {
  'bad-request': [400, 'the request is not complete'],
  token: [401, 'the token is not good, or no longer'],
  scope: [403, 'the account did not allow that'],
  'no-placement': [404, 'no such placement'],
  'no-upload': [404, 'the upload is not here'],
  'partial-upload': [409, 'the upload is not complete'],
  'no-post': [404, 'no such post of this account'],
  'key-used': [422, 'the key was used for another post'],
  busy: [429, 'too many requests'],
  full: [507, 'there is no room for it'],
  down: [503, 'the outlet is down'],
};
const KEY = /^[\w-]{1,64}$/;
/** Services behind the interface of an outlet's stand-in. */
interface StandInServices {
  sheet: RuleSheet;
  traits: StandInTraits;
  authority: Authority;
  records: TakenPosts;
  posts: Posts;
}

function fail(response: Response, error: OutletError, detail = ERRORS[error][1]): void {
  // A token that is missing or wrong is told of as RFC 6750, 3 says.
  if (error === 'token') response.set('www-authenticate', 'Bearer error="invalid_token"');
  if (error === 'scope') response.set('www-authenticate', 'Bearer error="insufficient_scope"');
  response.status(ERRORS[error][0]).json({ error, detail });
}

/** Lets in only what a token allows; the account that it speaks for is kept with the answer. */
export const requireScope =
  (authority: Authority, scope: Scope): RequestHandler =>
  async (request, response, next) => {
    const [, token] = /^Bearer ([\w.~+/-]+=*)$/.exec(request.headers.authorization ?? '') ?? [];
    const access = token ? await authority.checkAccess(`http://${request.headers.host}`, token) : null;
    if (!access) return fail(response, 'token');
    if (!access.scopes.has(scope)) return fail(response, 'scope');
    response.locals.account = access.account;
    next();
  };

const getAccount = (response: Response): string => String(response.locals.account);

/** Adds what programs may ask of an outlet's stand-in: `docs/outlet-api.yaml`. */
export function addOutletApi(
  app: Express,
  { sheet, traits, authority, records, posts }: StandInServices,
): void {
  const root = outletRoot(sheet.outlet);
  const at = (address: string) => `${root}${address}`;
  const reads = requireScope(authority, 'read');
  const mayPost = requireScope(authority, 'post');

  app.get(at(OUTLET_API.abilities), (request, response) => {
    const issuer = `http://${request.headers.host}${authorityPath(sheet.outlet)}`;
    response.json(describeAbilities({ sheet, traits }, issuer));
  });
  app.get(at(OUTLET_API.account), reads, (_request, response) => {
    const account = findOutletAccount(getAccount(response));
    if (account) response.json(account);
    else fail(response, 'token');
  });
  app.get(at(OUTLET_API.collections), reads, (_request, response) => {
    const own = records.up().filter(({ poster }) => poster === getAccount(response));
    const names = own.flatMap(({ form: { collection } }) => (collection === null ? [] : [collection]));
    response.json({ collections: [...new Set(['Kite days', ...names])] });
  });
  app.get(at(OUTLET_API.longVideos), reads, (request, response) => {
    const search = String(request.query.search ?? '');
    const videos = findVideos(traits.longVideos, search, `http://${request.headers.host}${root}`);
    response.json({ videos });
  });
  app.post(
    at(OUTLET_API.posts),
    mayPost,
    express.json({ limit: MAX_FORM_BYTES }),
    async (request, response) => {
      const key = request.get(KEY_HEADER) ?? '';
      const form = postFormSchema.safeParse(request.body);
      if (!form.success) return fail(response, 'bad-request', form.error.issues[0]?.message);
      if (!KEY.test(key)) return fail(response, 'bad-request', `the header ${KEY_HEADER} is missing`);
      if (form.data.publishAt !== null && !traits.schedule)
        return fail(response, 'bad-request', 'there is no schedule here');
      const answer = await posts.post(form.data, getAccount(response), key);
      if (typeof answer === 'string') fail(response, answer);
      else response.status(202).json(answer);
    },
  );
  app.get(at(OUTLET_API.post(':id')), reads, (request, response) => {
    const post = ownPost(request, response);
    if (post) response.json(posts.answer(post));
  });
  app.patch(at(OUTLET_API.post(':id')), mayPost, express.json({ limit: '4kb' }), (request, response) => {
    const change = postChangeSchema.safeParse(request.body);
    if (!change.success) return fail(response, 'bad-request');
    const post = ownPost(request, response);
    if (!post) return;
    const placement = sheet.placements.find(({ id }) => id === post.form.placement);
    if (!placement?.audiences.includes(change.data.audience))
      return fail(response, 'bad-request', `a post cannot be ${change.data.audience} here`);
    records.change(post.id, { ...post.form, ...change.data, publishAt: null });
    const changed = records.withId(post.id);
    if (changed) response.json(posts.answer(changed));
  });
  app.delete(at(OUTLET_API.post(':id')), mayPost, async (request, response) => {
    const post = ownPost(request, response);
    if (!post) return;
    await posts.takeDown(post.id);
    response.status(204).end();
  });
  app.get(at(OUTLET_API.viewed(':id')), reads, (request, response, next) => {
    const post = ownPost(request, response);
    if (!post) return;
    if (post.state === 'up') sendFilm(response, next, posts.viewedOf(post.id));
    else fail(response, 'no-post');
  });

  /** A post of the account that asks; one of another is not there. */
  function ownPost(request: Request, response: Response): TakenPost | null {
    const id = String(request.params.id);
    const post = records.withId(id);
    if (post?.poster === getAccount(response)) return post;
    fail(response, 'no-post');
    return null;
  }
}

const describeAbilities = (
  { sheet, traits }: Pick<StandInServices, 'sheet' | 'traits'>,
  issuer: string,
): Abilities => ({
  ...{ contract: CONTRACT, outlet: sheet.outlet, name: sheet.name, issuer },
  mostBytes: Math.max(...sheet.placements.map(({ mostBytes }) => mostBytes)),
  placements: sheet.placements.map(({ id }) => id),
  drafts: sheet.placements.filter(({ audiences }) => audiences.includes('private')).map(({ id }) => id),
  schedule: traits.schedule,
  covers: sheet.placements.some(({ cover }) => cover !== null),
  captions: true,
  permissions: true,
  content: true,
  collections: true,
  categories: [...traits.categories],
  cards: sheet.placements.some(({ longVideo }) => longVideo !== 'none'),
  longVideos: traits.longVideos.length > 0,
  viewed: true,
});
