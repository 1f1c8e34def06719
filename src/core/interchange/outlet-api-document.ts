import {
  abilitiesSchema,
  KEY_HEADER,
  OUTLET_API,
  outletAccountSchema,
  outletErrorSchema,
  outletPostSchema,
  postChangeSchema,
} from '../outlets/outlet-api';
import { postFormSchema } from '../outlets/post-form';
import { collectionsSchema, longVideosSchema } from '../posting/accounts';
import { answer, json, toPathParameter, problem, toJsonSchema } from './open-api';

const ID = toPathParameter('id', 'What the outlet calls a post.', '^[\\w-]{1,100}$');
const KEY = {
  ...{
    name: KEY_HEADER,
    in: 'header',
    required: true,
    schema: { type: 'string', pattern: '^[\\w-]{1,64}$' },
  },
  description: 'Of whoever posts: the same key is one post, however often it is asked for.',
};
const toQueryParameter = (description: string, name: string) => ({
  requestBody: { required: true, description, content: json(name) },
});
const WAITS = {
  429: problem('Too many requests; `Retry-After` says when to ask again'),
  503: problem('The outlet is down; the same'),
};
const NEEDS = {
  401: problem('There is no token, or it is not good'),
  403: problem('Its account did not allow that'),
};
const reads = { security: [{ account: ['read'] }] };
const posts = { security: [{ account: ['post'] }] };

/** The interface that an outlet keeps so that clips can be posted there, as an OpenAPI document (OpenAPI 3.1.0). */
export const outletApiDocument = () => ({
  openapi: '3.1.0',
  info: {
    title: 'An outlet',
    version: '1',
    description:
      'What an outlet offers so that Gusset can post clips there. The stand-ins that ship keep it, and ' +
      '`npm run check-outlet -- URL` tries any other. Addresses are from the outlet\u2019s root. Its authorization server ' +
      'is named by its abilities: authorization code with PKCE (S256), refresh tokens, revocation, `iss` in its answers ' +
      '(RFC 6749, 7636, 7009, 8414 by OpenID Connect Discovery, 9207), and an identity token.',
  },
  paths: {
    [OUTLET_API.abilities]: {
      get: {
        summary: 'What the outlet can do',
        security: [],
        responses: { 200: answer('Its abilities', 'Abilities') },
      },
    },
    [OUTLET_API.account]: {
      get: {
        ...{ summary: 'Whose token it is', ...reads },
        responses: { 200: answer('The account', 'Account'), ...NEEDS, ...WAITS },
      },
    },
    [OUTLET_API.uploads]: {
      post: {
        ...{ summary: 'Begins an upload by tus 1.0.0', ...posts },
        description: 'The rest follows the protocol at the address that is answered, with the same token.',
        responses: {
          201: answer('Its address is in `Location`, on the same host'),
          413: problem('It is over the largest file that is taken'),
          507: problem('There is no room for it'),
          ...NEEDS,
          ...WAITS,
        },
      },
    },
    [OUTLET_API.posts]: {
      post: {
        ...{
          summary: 'Posts an upload',
          ...posts,
          parameters: [KEY],
          ...toQueryParameter('Words and choices', 'PostForm'),
        },
        responses: {
          202: answer('Where it stands', 'Post'),
          404: problem('The upload or the placement is not there'),
          409: problem('The upload is not whole'),
          422: problem('The key was used for another post'),
          ...NEEDS,
          ...WAITS,
        },
      },
    },
    [OUTLET_API.post('{id}')]: {
      parameters: [ID],
      get: {
        ...{ summary: 'Where a post stands', ...reads },
        responses: {
          200: answer('Where it stands', 'Post'),
          404: problem('No such post of the account'),
          ...NEEDS,
        },
      },
      patch: {
        ...{ summary: 'Changes who may see it', ...posts, ...toQueryParameter('What changes', 'PostChange') },
        responses: {
          200: answer('Where it stands', 'Post'),
          404: problem('No such post of the account'),
          ...NEEDS,
        },
      },
      delete: {
        ...{ summary: 'Takes it down', ...posts },
        responses: { 204: answer('It is gone'), 404: problem('No such post of the account'), ...NEEDS },
      },
    },
    [OUTLET_API.viewed('{id}')]: {
      parameters: [ID],
      get: {
        ...{ summary: 'What a viewer gets of a post that is up, where the outlet gives it', ...reads },
        responses: {
          200: { description: 'The film', content: { 'video/mp4': {} } },
          404: problem('No such post of the account, or it is not up'),
          ...NEEDS,
        },
      },
    },
    [OUTLET_API.collections]: {
      get: {
        ...{ summary: 'Collections of the account, where the outlet has them', ...reads },
        responses: { 200: answer('Their names', 'Collections'), ...NEEDS },
      },
    },
    [OUTLET_API.longVideos]: {
      parameters: [{ name: 'search', in: 'query', schema: { type: 'string' } }],
      get: {
        ...{ summary: 'Long videos that a clip may be linked to, where the outlet has them', ...reads },
        responses: { 200: answer('Those with all words in their titles', 'LongVideos'), ...NEEDS },
      },
    },
  },
  components: {
    schemas: {
      Abilities: toJsonSchema(abilitiesSchema),
      Account: toJsonSchema(outletAccountSchema),
      PostForm: toJsonSchema(postFormSchema),
      Post: toJsonSchema(outletPostSchema),
      PostChange: toJsonSchema(postChangeSchema),
      Collections: toJsonSchema(collectionsSchema),
      LongVideos: toJsonSchema(longVideosSchema),
      Problem: toJsonSchema(outletErrorSchema),
    },
    securitySchemes: {
      account: {
        type: 'openIdConnect',
        description: 'A bearer token (RFC 6750) of the authorization server that the abilities name.',
        openIdConnectUrl: '/authority/.well-known/openid-configuration',
      },
    },
  },
});
