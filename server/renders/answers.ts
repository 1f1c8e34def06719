import express, { type Response } from 'express';
import { MAX_FRAMES } from '../../src/core/figures/bounded';
import type { RenderRefusal } from './resolve-request';

/** Why a file is not begun, in words and as a status. */
const REFUSALS: Record<RenderRefusal, { status: number; error: string }> = {
  'master-missing': { status: 409, error: 'a master of the clip is not here' },
  'other-version': {
    status: 422,
    error: 'this server would make another file of the job: it is of another version',
  },
  'no-canvas': { status: 422, error: 'the job has no such clip or canvas' },
  'too-long': { status: 422, error: `a file has at most ${MAX_FRAMES} frames` },
  'font-missing': { status: 409, error: 'a font of the clip’s words is not here' },
};

/** Reads a body with a job in it. */
export const jobBody = express.json({ limit: '8mb' });

/** Tells what something that was begun is called, or why it was not. */
export function answerWithId(response: Response, begun: { id: string } | { refused: RenderRefusal }): void {
  if ('id' in begun) response.status(202).json(begun);
  else response.status(REFUSALS[begun.refused].status).json({ error: REFUSALS[begun.refused].error });
}
