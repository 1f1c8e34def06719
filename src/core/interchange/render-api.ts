import { z } from 'zod';
import {
  masterPath,
  RENDER_ABILITY,
  RENDER_MASTERS,
  RENDER_UPLOADS,
  renderAbilitySchema,
  renderedPath,
  renderEvents,
  renderPath,
  renderRequestSchema,
  RENDERS,
  renderStateSchema,
} from '../job/render-service';
import {
  trialPath,
  trialPicturePath,
  trialRequestSchema,
  TRIALS,
  trialStateSchema,
} from '../trial/trial-service';
import { answer, json, toPathParameter, problem, toJsonSchema } from './open-api';

const ID = toPathParameter('id', 'What the server calls a file that was asked for.', '^[0-9a-f]{32}$');
const TRIAL = toPathParameter('id', 'What the server calls a trial that was asked for.', '^[0-9a-f]{32}$');
const FINGERPRINT = toPathParameter('fingerprint', 'SHA-256 of a master, in hex.', '^[0-9a-f]{64}$');

/** The interface of the render server as an OpenAPI document (OpenAPI 3.1.0). */
export const renderApi = () => ({
  openapi: '3.1.0',
  info: {
    title: 'Gusset render server',
    version: '1',
    description:
      'Makes files of a job and its masters. Whoever asks is known by a cookie that the server sets; nobody sees what ' +
      'another asked for. Masters and files are deleted after a day without use.',
  },
  paths: {
    [RENDER_ABILITY]: {
      get: {
        summary: 'Whether the server can make files',
        responses: { 200: answer('What it has', 'Ability') },
      },
    },
    [RENDER_UPLOADS]: {
      post: {
        summary: 'Begins the upload of a master by tus 1.0.0',
        description: 'The rest of the upload follows the protocol at the address that is answered.',
        responses: { 201: answer('Its address is in `Location`'), 507: answer('There is no room for it') },
      },
    },
    [RENDER_MASTERS]: {
      get: { summary: 'Masters that you sent', responses: { 200: answer('Their fingerprints', 'Masters') } },
    },
    [masterPath('{fingerprint}')]: {
      parameters: [FINGERPRINT],
      put: {
        summary: 'Takes a whole upload as a master',
        requestBody: { required: true, content: json('Upload') },
        responses: {
          204: answer('It is taken'),
          404: problem('The upload is not here'),
          409: problem('The upload is not complete'),
          422: problem('The upload is another file than its fingerprint says; it is deleted'),
        },
      },
      delete: { summary: 'Deletes a master', responses: { 204: answer('It is gone') } },
    },
    [RENDERS]: {
      post: {
        summary: 'Asks for a file',
        requestBody: { required: true, content: json('RenderRequest') },
        responses: {
          202: answer('It waits for its turn', 'Begun'),
          409: problem('A master of the clip is not here'),
          422: problem('The job cannot be read, has no such canvas, or would become another file here'),
        },
      },
    },
    [renderPath('{id}')]: {
      parameters: [ID],
      get: {
        summary: 'Where a file stands',
        responses: { 200: answer('Its state', 'RenderState'), 404: problem('You asked for no such file') },
      },
      delete: { summary: 'Stops a file and deletes all of it', responses: { 204: answer('It is gone') } },
    },
    [renderEvents('{id}')]: {
      parameters: [ID],
      get: {
        summary: 'Where a file stands, as it changes',
        description: 'Server-sent events, each with a RenderState; the stream ends with `done` or `failed`.',
        responses: { 200: { description: 'The events', content: { 'text/event-stream': {} } } },
      },
    },
    [renderedPath('{id}')]: {
      parameters: [ID],
      get: {
        summary: 'The finished file, or a range of it',
        responses: {
          200: { description: 'Its bytes', content: { 'application/octet-stream': {} } },
          404: problem('It is not made yet'),
        },
      },
    },
    [TRIALS]: {
      post: {
        summary: 'Asks for a trial of bit rates',
        description:
          'Pieces of the clip are made at each rate, compressed once more as the outlet does, and compared with what was ' +
          'drawn. A trial does not outlive the server.',
        requestBody: { required: true, content: json('TrialRequest') },
        responses: {
          202: answer('It waits for its turn', 'Begun'),
          409: problem('A master of the clip is not here'),
          422: problem(
            'The job cannot be read, has no such canvas or master, or would become another file here',
          ),
        },
      },
    },
    [trialPath('{id}')]: {
      parameters: [TRIAL],
      get: {
        summary: 'Where a trial stands, and what it found',
        responses: { 200: answer('Its state', 'TrialState'), 404: problem('You asked for no such trial') },
      },
      delete: { summary: 'Stops a trial and deletes all of it', responses: { 204: answer('It is gone') } },
    },
    [trialPicturePath('{id}', '{rate}', '{kind}')]: {
      parameters: [
        TRIAL,
        toPathParameter('rate', 'Which of its rates, from 0.', '^[0-9]{1,2}$'),
        toPathParameter('kind', 'As planned, or as a viewer would get it.', '^(planned|viewed)$'),
      ],
      get: {
        summary: 'The worst frame at a rate',
        responses: {
          200: { description: 'A picture without loss', content: { 'image/png': {} } },
          404: problem('There is no such picture'),
        },
      },
    },
  },
  components: {
    schemas: {
      Ability: toJsonSchema(renderAbilitySchema),
      Masters: toJsonSchema(z.object({ masters: z.array(z.string()) })),
      Upload: toJsonSchema(z.object({ upload: z.string() })),
      Begun: toJsonSchema(z.object({ id: z.string() })),
      RenderRequest: toJsonSchema(renderRequestSchema),
      RenderState: toJsonSchema(renderStateSchema),
      TrialRequest: toJsonSchema(trialRequestSchema),
      TrialState: toJsonSchema(trialStateSchema),
      Problem: toJsonSchema(z.object({ error: z.string() })),
    },
  },
});
