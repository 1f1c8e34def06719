import type { Express, Request } from 'express';
import { isRandomId } from '../../src/core/figures/random-id';
import { trialPath, trialPicturePath, trialRequestSchema, TRIALS } from '../../src/core/trial/trial-service';
import { readRouteId } from '../route-id';
import { readVisitorMark, findVisitor } from '../visitor';
import { parseBody } from '../answers';
import { answerWithId, jobBody } from './answers';
import type { Trials } from './trials';

/** Adds trials of bit rates: where one stands, its pictures, and a way to stop it. */
export function addTrials(app: Express, trials: Trials): void {
  const ours = (request: Request) => findVisitor(request, '/render');
  app.post(TRIALS, jobBody, async (request, response) => {
    const asked = parseBody(request, response, trialRequestSchema);
    if (!asked) return;
    answerWithId(response, await trials.begin(readVisitorMark(request, response, '/render'), asked));
  });
  app.use(trialPath(':id'), (request, response, next) => {
    const id = String(request.params.id);
    if (isRandomId(id) && trials.find(id, ours(request))) return next();
    response.status(404).json({ error: 'no such trial was asked for' });
  });
  app.get(trialPath(':id'), (request, response) => {
    response.json(trials.find(readRouteId(request), ours(request)));
  });
  app.get(trialPicturePath(':id', ':rate', ':kind'), (request, response, next) => {
    const { rate, kind } = request.params;
    const isKnown = /^\d{1,2}$/.test(String(rate)) && (kind === 'planned' || kind === 'viewed');
    if (!isKnown || trials.find(readRouteId(request), ours(request))?.state !== 'done') {
      response.status(404).json({ error: 'there is no such picture' });
      return;
    }
    response
      .type('image/png')
      .sendFile(
        trials.toPicture(readRouteId(request), kind, Number(rate)),
        (error?: NodeJS.ErrnoException) => {
          if (error && error.code !== 'ECONNABORTED') next(error);
        },
      );
  });
  app.delete(trialPath(':id'), async (request, response) => {
    await trials.forget(readRouteId(request));
    response.status(204).end();
  });
}
