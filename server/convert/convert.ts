import { mkdirSync } from 'node:fs';
import path from 'node:path';
import type { Express } from 'express';
import {
  CONVERT_ABILITY,
  CONVERT_UPLOADS,
  conversionPath,
  convertedPath,
} from '../../src/core/convert/protocol';
import { isRandomId } from '../../src/core/figures/random-id';
import { readRouteId } from '../route-id';
import { sendFilm } from '../send-file';
import type { Workshop } from '../workshop';
import { UploadEndpoint } from '../uploads/upload-endpoint';
import { ConversionRecords } from './conversion-records';
import { Conversions } from './conversions';

/** Largest file that is taken, in bytes. */
const MAX_BYTES = 64e9;

/** Adds the conversion of files that a browser cannot decode: upload by tus, progress, the result, and a way to stop. */
export function addConversion(app: Express, { database, data, tools, looks, long }: Workshop): Conversions {
  const results = path.join(data, 'converted');
  mkdirSync(results, { recursive: true });
  const door = UploadEndpoint.add(app, database, {
    name: 'convert',
    address: CONVERT_UPLOADS,
    folder: path.join(data, 'convert'),
    mostBytes: MAX_BYTES,
  });
  const conversions = new Conversions(new ConversionRecords(database), door, results, looks, long);

  app.get(CONVERT_ABILITY, (_request, response) => {
    response.json({ ffmpeg: tools.ffmpeg });
  });
  app.use(conversionPath(':id'), (request, response, next) => {
    if (isRandomId(String(request.params.id))) return next();
    response.status(404).json({ error: 'no such conversion' });
  });
  app.post(conversionPath(':id'), async (request, response) => {
    const id = readRouteId(request);
    const known = conversions.find(id);
    const state = known ? 'whole' : await door.state(id);
    if (state === 'missing') response.status(404).json({ error: 'the upload is not here' });
    else if (state === 'partial') response.status(409).json({ error: 'the upload is not complete' });
    else response.json(known ?? conversions.begin(id));
  });
  app.get(conversionPath(':id'), (request, response) => {
    const known = conversions.find(readRouteId(request));
    if (known) response.json(known);
    else response.status(404).json({ error: 'no such conversion' });
  });
  app.get(convertedPath(':id'), (request, response, next) => {
    const id = readRouteId(request);
    if (conversions.find(id)?.state !== 'done') {
      response.status(404).json({ error: 'there is no converted file' });
      return;
    }
    sendFilm(response, next, conversions.getResultPath(id));
  });
  app.delete(conversionPath(':id'), async (request, response) => {
    await conversions.forget(readRouteId(request));
    response.status(204).end();
  });
  return conversions;
}
