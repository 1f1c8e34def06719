import { mkdirSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import path from 'node:path';
import type { Express } from 'express';
import { isRandomId } from '../../src/core/figures/random-id';
import { CHAT_UPLOADS, chatFilePath } from '../../src/core/posting/chat';
import { filmInput, OUTLET_CONTAINERS } from '../programs/media-args';
import { ProgramError, type Limits } from '../programs/programs';
import { sendFilm } from '../send-file';
import { UploadEndpoint } from '../uploads/upload-endpoint';
import type { Workshop } from '../workshop';

/** Largest file that is taken, in bytes. */
const MAX_FILE = 2e9;
const LIMITS: Limits = { seconds: 1800, memory: 4e9, fileBytes: 1e9, outputBytes: 1e6 };

/**
 * Arguments that compress a film as chat apps do: half as large, fewer frames, a low bitrate, mono (common
 * practice, no source).
 */
const shrinkArgs = (from: string, to: string): string[] => [
  ...filmInput(OUTLET_CONTAINERS, from),
  ...[
    '-vf',
    "scale=w='trunc(iw/4)*2':h='trunc(ih/4)*2':flags=bilinear,fps=min(source_fps\\,25),format=yuv420p",
  ],
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '33', '-c:a', 'aac', '-b:a', '40k', '-ac', '1'],
  ...['-map_metadata', '-1', '-f', 'mp4', to],
];

/** Adds the stand-in of a chat app to a server: a file goes up, and comes back as its receiver would get it. */
export function addChat(app: Express, { database, data, looks }: Workshop): UploadEndpoint {
  const folder = path.join(data, 'chat');
  mkdirSync(folder, { recursive: true });
  const door = UploadEndpoint.add(app, database, {
    ...{ name: 'chat', address: CHAT_UPLOADS, folder, mostBytes: MAX_FILE },
  });
  /** Files that are being made small or sent: each is fetched once. */
  const busy = new Set<string>();
  app.get(chatFilePath(':id'), async (request, response, next) => {
    const id = String(request.params.id);
    if (!isRandomId(id) || busy.has(id) || (await door.state(id)) !== 'whole' || busy.has(id)) {
      response.status(404).json({ error: 'no such file was sent' });
      return;
    }
    busy.add(id);
    const shrunk = `${door.getFile(id)}.shrunk.mp4`;
    const gone = new AbortController();
    response.on('close', () => {
      gone.abort();
      void forget().catch((error: unknown) => console.error(error));
    });
    const making = looks.run('ffmpeg', shrinkArgs(door.getFile(id), shrunk), {
      limits: LIMITS,
      signal: gone.signal,
    });
    const forget = async () => {
      await making.catch(() => undefined);
      await rm(shrunk, { force: true });
      await door.forget(id);
      busy.delete(id);
    };
    try {
      await making;
    } catch (error) {
      // Whoever asked went away.
      if (gone.signal.aborted) return;
      if (error instanceof ProgramError && error.reason !== 'missing' && error.reason !== 'busy')
        return void response.status(422).json({ error: 'that is no film' });
      throw error;
    }
    sendFilm(response, next, shrunk);
  });
  return door;
}
