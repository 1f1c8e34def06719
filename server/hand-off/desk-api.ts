import path from 'node:path';
import express, { type Express, type Request, type Response } from 'express';
import {
  HAND_OFF_UPLOADS,
  type Offer,
  OFFER_EVENTS,
  offerLongerPath,
  offerOrderSchema,
  offerPath,
  OFFERS,
  type OfferList as OffersAnswer,
} from '../../src/core/posting/hand-off';
import { parseBody } from '../answers';
import { tellChanges } from '../events';
import { OUTLET_CONTAINERS } from '../programs/media-args';
import { probeIndex } from '../programs/probe';
import { UploadEndpoint } from '../uploads/upload-endpoint';
import { readVisitorMark, findVisitor } from '../visitor';
import type { Workshop } from '../workshop';
import { type KeptOffer, Offers } from './offers';

/** Largest file that is handed on, in bytes. */
const MAX_FILE = 16e9;

/** The desk's side of handing files to phones. */
export interface HandOff {
  offers: Offers;
  /** Where phones reach this server; null where they do not. */
  lan: string | null;
}

/** Adds the desk's side: files by tus, offers, how they stand as events, and ways to keep them open and to close them. */
export function addHandOff(app: Express, { database, data, looks }: Workshop): HandOff {
  const door = UploadEndpoint.add(app, database, {
    name: 'hand-off',
    address: HAND_OFF_UPLOADS,
    folder: path.join(data, 'hand-off'),
    mostBytes: MAX_FILE,
  });
  // What cannot be probed is a still, or is shown without its length.
  const getLength = (file: string) =>
    probeIndex(looks, file, OUTLET_CONTAINERS).then(
      ({ seconds }) => seconds,
      () => null,
    );
  const handOff: HandOff = { offers: new Offers(door, getLength), lan: null };
  const { offers } = handOff;
  const toPublicOffer = ({ visitor: _who, token, ...offer }: KeptOffer): Offer => ({
    ...offer,
    address: `${handOff.lan ?? ''}/${token}`,
  });

  app.get(OFFERS, (request, response) => {
    const visitor = findVisitor(request, '/hand-off');
    const own = visitor === null ? [] : offers.of(visitor).map(toPublicOffer);
    response.json({ lan: handOff.lan, offers: own } satisfies OffersAnswer);
  });
  app.post(OFFERS, express.json({ limit: '4kb' }), async (request, response) => {
    const order = parseBody(request, response, offerOrderSchema);
    if (!order) return;
    if (handOff.lan === null) {
      response.status(503).json({ error: 'this server does not reach the local network' });
      return;
    }
    const offer = await offers.open(order, readVisitorMark(request, response, '/hand-off'));
    if (offer) response.status(201).json(toPublicOffer(offer));
    else response.status(409).json({ error: 'the file is not here, or not whole' });
  });
  app.get(OFFER_EVENTS, (request, response) => {
    // Whoever listens before anything was offered hears of the first offer too.
    const visitor = readVisitorMark(request, response, '/hand-off');
    const pick = (offer: KeptOffer) => (offer.visitor === visitor ? toPublicOffer(offer) : null);
    tellChanges(response, offers.news, pick, offers.of(visitor));
  });
  app.post(offerLongerPath(':id'), (request, response) => {
    const offer = findOwned(request, response);
    if (!offer) return;
    const longer = offers.longer(offer);
    if (longer) response.json(toPublicOffer(longer));
    else response.status(410).json({ error: 'the offer has ended' });
  });
  app.delete(offerPath(':id'), async (request, response) => {
    const offer = offers.find(String(request.params.id), findVisitor(request, '/hand-off'));
    if (offer) await offers.close(offer);
    response.status(204).end();
  });

  /** An offer of the browser that asks; one of another is not there. */
  function findOwned(request: Request, response: Response): KeptOffer | null {
    const offer = offers.find(String(request.params.id), findVisitor(request, '/hand-off'));
    if (!offer) response.status(404).json({ error: 'no such offer' });
    return offer;
  }
  return handOff;
}
