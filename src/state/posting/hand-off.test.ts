import { parseRandomId, type RandomId } from '@core/figures/random-id';
import type { Offer } from '@core/posting/hand-off';
import {
  cancelOffering,
  closeOffer,
  followOffers,
  keepOffer,
  offerFile,
  toOfferId,
  useHandOff,
} from './hand-off';
import { begin, readyToExport, waitForTasks, readStored } from '../export/test-exports';
import { mockMedia } from '../test-media';
import type * as TestMedia from '../test-media';
import { FakeEvents, respond } from '../test-server';

jest.mock('@media/worker/tasks', () => jest.requireActual<typeof TestMedia>('../test-media').mockTasks);
jest.mock('@media/store/storage', () => jest.requireActual<typeof TestMedia>('../test-media').mockStorage);
jest.mock('@media/send/upload', () => jest.requireActual<typeof TestMedia>('../test-media').mockUpload);

const UPLOAD = parseRandomId('b'.repeat(32));
const events = FakeEvents.install();
const offerOf = (id: RandomId, change: Partial<Offer> = {}): Offer => ({
  ...{
    id,
    upload: UPLOAD,
    fileName: 'x.mp4',
    state: 'open',
    version: 1,
    address: 'http://10.0.0.2:4102/abc',
  },
  ...{ bytes: 1000, sha256: 'c'.repeat(64), seconds: 2, until: 9e12, starts: 0, fetched: 0, found: null },
  ...change,
});
const made = async () => {
  begin();
  await waitForTasks();
  return readStored().exports[0]!;
};
const offers = () => useHandOff.getState().offers;
const troubleOf = (id: string) => useHandOff.getState().troubles[id]?.code;

beforeEach(async () => {
  await readyToExport();
  useHandOff.setState({ isDown: false, offers: {}, sending: {}, troubles: {} });
  mockMedia.uploadFile.mockResolvedValue(UPLOAD);
});
afterEach(() => jest.restoreAllMocks());

describe('a file that is offered to a phone', () => {
  it('goes to the server, and is offered under its export’s name', async () => {
    const record = await made();
    const id = toOfferId(record);
    const fetched = jest.spyOn(globalThis, 'fetch').mockResolvedValue(respond(201, offerOf(id)));
    await offerFile(record);
    const [address, init] = fetched.mock.calls[0] as [string, RequestInit];
    expect([address, JSON.parse(String(init.body))]).toEqual([
      '/hand-off/api/offers',
      { id, upload: UPLOAD, fileName: record.fileName },
    ]);
    expect(offers()[id]).toMatchObject({ state: 'open' });
    expect(useHandOff.getState().sending).toEqual({});
  });

  it('is told of as it changes, and what comes late changes nothing', async () => {
    const id = toOfferId(await made());
    const leave = followOffers();
    events().tell(offerOf(id, { version: 3, fetched: 500 }));
    events().tell(offerOf(id, { version: 2, fetched: 10 }));
    expect(offers()[id]?.fetched).toBe(500);
    leave();
    expect(events().closed).toBe(true);
  });

  it('is none any more where the server was started anew', async () => {
    const id = toOfferId(await made());
    const leave = followOffers();
    events().tell(offerOf(id));
    jest.spyOn(globalThis, 'fetch').mockResolvedValue(respond(200, { lan: null, offers: [] }));
    events().onopen?.();
    await waitForTasks();
    expect(useHandOff.getState()).toMatchObject({ lan: null, offers: {}, isDown: false });
    leave();
  });

  it('is not waited for where the server does not answer, and is once it does', async () => {
    const leave = followOffers();
    events().onerror?.();
    expect(useHandOff.getState().isDown).toBe(true);
    jest
      .spyOn(globalThis, 'fetch')
      .mockResolvedValue(respond(200, { lan: 'http://10.0.0.2:4102', offers: [] }));
    events().onopen?.();
    await waitForTasks();
    expect(useHandOff.getState()).toMatchObject({ lan: 'http://10.0.0.2:4102', isDown: false });
    leave();
  });

  it('says what went wrong, and can be cancelled on its way', async () => {
    const record = await made();
    const fetched = jest.spyOn(globalThis, 'fetch').mockResolvedValue(respond(507, {}));
    await offerFile(record);
    expect(troubleOf(record.id)).toBe('server-refused');
    fetched.mockImplementation(
      (_address, init) =>
        new Promise((_, reject) =>
          init?.signal?.addEventListener('abort', () => reject(new Error('stopped'))),
        ),
    );
    const going = offerFile(record);
    await waitForTasks();
    cancelOffering(record.id);
    await going;
    expect(useHandOff.getState()).toMatchObject({ sending: {}, offers: {} });
    expect(troubleOf(record.id)).toBeUndefined();
  });

  it('is kept open, or closed, and says so where the server does not do it', async () => {
    const record = await made();
    const id = toOfferId(record);
    const fetched = jest.spyOn(globalThis, 'fetch');
    fetched.mockResolvedValueOnce(respond(200, offerOf(id, { version: 2, until: 9.5e12 })));
    await keepOffer(record);
    expect(offers()[id]?.until).toBe(9.5e12);
    fetched.mockResolvedValueOnce(respond(410, {}));
    await keepOffer(record);
    expect(troubleOf(record.id)).toBe('server-refused');
    fetched.mockRejectedValueOnce(new TypeError('no line'));
    await closeOffer(record);
    expect(troubleOf(record.id)).toBe('server-down');
    fetched.mockResolvedValueOnce(respond(204, null));
    await closeOffer(record);
    expect(troubleOf(record.id)).toBeUndefined();
  });
});
