import { create } from 'zustand';
import { parseRandomId, type RandomId } from '@core/figures/random-id';
import type { ExportRecord } from '@core/job/records';
import {
  HAND_OFF_UPLOADS,
  type Offer,
  OFFER_EVENTS,
  offerLongerPath,
  offerPath,
  OFFERS,
  offerSchema,
  offersSchema,
} from '@core/posting/hand-off';
import { type Trouble, TroubleError } from '@core/trouble/trouble';
import { uploadFile } from '@media/send/upload';
import { loadExportedFile } from '../export';
import { askDone, askJson, type ServerName, serverTrouble } from '../server';
import { awaitOutcome } from '../task';

const SERVER: ServerName = { who: 'The server', errand: 'hand-off' };

interface HandOffState {
  /** Where phones reach the server; null where they do not, and not there before it was asked. */
  lan?: string | null;
  /** True when the server does not answer now. */
  isDown: boolean;
  /** By id; that of an export is {@link toOfferId}. */
  offers: Readonly<Record<string, Offer>>;
  /** Files on their way to the server, by export, in bytes. */
  sending: Readonly<Record<string, { sent: number; total: number }>>;
  troubles: Readonly<Record<string, Trouble>>;
}

/** Files that a phone is offered. */
export const useHandOff = create<HandOffState>(() => ({
  ...{ isDown: false, offers: {}, sending: {}, troubles: {} },
}));

/** An export is offered once at a time, under this name. */
export const toOfferId = ({ id }: Pick<ExportRecord, 'id'>): RandomId =>
  parseRandomId(id.replaceAll('-', ''));

const stops = new Map<string, AbortController>();

function take(offer: Offer): void {
  const known = useHandOff.getState().offers[offer.id];
  if (known && known.version > offer.version) return;
  useHandOff.setState(({ offers }) => ({ offers: { ...offers, [offer.id]: offer } }));
}

async function load(): Promise<void> {
  const { lan, offers } = await askJson(SERVER, OFFERS, offersSchema);
  // Offers end with the server: what it does not know any more is none.
  const there = new Set<string>(offers.map(({ id }) => id));
  useHandOff.setState(({ offers: known }) => ({
    lan,
    isDown: false,
    offers: Object.fromEntries(Object.entries(known).filter(([id]) => there.has(id))),
  }));
  for (const offer of offers) take(offer);
}

const down = (): void => useHandOff.setState({ isDown: true });

/** Hears how offers stand, for as long as a page shows them. @returns what ends it. */
export function followOffers(): () => void {
  const source = new EventSource(OFFER_EVENTS);
  // Also once the server is there again.
  source.onopen = () => void load().catch(down);
  source.onerror = down;
  source.onmessage = ({ data }: MessageEvent<string>) => {
    const read = offerSchema.safeParse(JSON.parse(data));
    if (read.success) take(read.data);
  };
  return () => source.close();
}

/** Gives a file to the server, from where a phone can fetch it. */
export async function offerFile(record: ExportRecord): Promise<void> {
  const { id, fileName } = record;
  if (useHandOff.getState().sending[id]) return;
  const stop = new AbortController();
  stops.set(id, stop);
  const show = (sent: number, total: number) =>
    useHandOff.setState(({ sending }) => ({ sending: { ...sending, [id]: { sent, total } } }));
  useHandOff.setState(({ troubles: { [id]: _old, ...troubles } }) => ({ troubles }));
  show(0, record.bytes ?? 1);
  const outcome = await awaitOutcome(
    {
      async run(signal) {
        const file = await loadExportedFile(record);
        if (!file) throw new TroubleError('export-gone', { file: fileName });
        const request = { endpoint: HAND_OFF_UPLOADS, ...SERVER, file, key: `hand-off-${id}` };
        const upload = await uploadFile(request, show, signal);
        const body = { id: toOfferId(record), upload, fileName };
        return askJson(SERVER, OFFERS, offerSchema, { method: 'POST', body, signal, long: true });
      },
      // What is up stays up: the next attempt goes on from there.
      clean: () => Promise.resolve(),
      trouble: (error) => serverTrouble(SERVER, error),
    },
    stop.signal,
  );
  stops.delete(id);
  if (outcome.state === 'done') take(outcome.result);
  useHandOff.setState(({ sending: { [id]: _done, ...sending }, troubles }) => ({
    sending,
    troubles: outcome.state === 'failed' ? { ...troubles, [id]: outcome.trouble } : troubles,
  }));
}

export function cancelOffering(exportId: string): void {
  stops.get(exportId)?.abort();
}

/** Asks something of an offer; what goes wrong is told with it. */
async function askAboutOffer({ id }: ExportRecord, act: () => Promise<unknown>): Promise<void> {
  useHandOff.setState(({ troubles: { [id]: _old, ...troubles } }) => ({ troubles }));
  try {
    await act();
  } catch (error) {
    const trouble = serverTrouble(SERVER, error);
    useHandOff.setState(({ troubles }) => ({ troubles: { ...troubles, [id]: trouble } }));
  }
}

/** Gives an offer ten more minutes. */
export const keepOffer = (record: ExportRecord): Promise<void> =>
  askAboutOffer(record, async () =>
    take(
      await askJson(SERVER, offerLongerPath(toOfferId(record)), offerSchema, { method: 'POST', body: {} }),
    ),
  );

/** Takes an offer back: its address opens nothing any more. */
export const closeOffer = (record: ExportRecord): Promise<void> =>
  askAboutOffer(record, () => askDone(SERVER, offerPath(toOfferId(record)), { method: 'DELETE' }));
