import { conversionPath, convertedPath } from '@core/convert/protocol';
import { cancelConversion, canConvert, convertFile, useConvert } from './convert';

const mockUpload = jest.fn();
jest.mock('@media/send/upload', () => ({
  uploadFile: (...args: unknown[]) => mockUpload(...args) as unknown,
}));

const id = 'a'.repeat(32);
const film = (name = 'tape.avi') => new File(['film'], name);
/** Answers of the server, by address; and the requests to it, in order. */
let answers: Record<string, () => Partial<Response>>;
let asked: string[];
const settled = () => new Promise((resolve) => setTimeout(resolve, 10));
const json = (body: unknown) => () => ({ ok: true, status: 200, json: () => Promise.resolve(body) });

beforeEach(() => {
  asked = [];
  answers = {
    [`POST ${conversionPath(id)}`]: json({ state: 'done', bytes: 4 }),
    [`GET ${convertedPath(id)}`]: () => ({ ok: true, blob: () => Promise.resolve(new Blob(['copy'])) }),
    [`DELETE ${conversionPath(id)}`]: () => ({ ok: true, status: 204 }),
  };
  mockUpload.mockReset().mockResolvedValue(id);
  jest.spyOn(globalThis, 'fetch').mockImplementation((address, init) => {
    const request = `${init?.method ?? 'GET'} ${String(address)}`;
    asked.push(request);
    const answer = answers[request];
    return answer ? Promise.resolve(answer() as Response) : Promise.reject(new Error('down'));
  });
  useConvert.setState({ stage: null, trouble: null });
});
afterEach(() => jest.restoreAllMocks());

describe('a conversion', () => {
  it('gives the copy, and only then lets the server forget it', async () => {
    const copy = await convertFile(film());
    expect(copy?.name).toBe('tape (converted).mp4');
    await settled();
    expect(asked).toEqual([
      `POST ${conversionPath(id)}`,
      `GET ${convertedPath(id)}`,
      `DELETE ${conversionPath(id)}`,
    ]);
    expect(useConvert.getState()).toMatchObject({ stage: null, trouble: null });
  });

  it('whose copy arrives in part keeps what is on the server', async () => {
    answers[`POST ${conversionPath(id)}`] = json({ state: 'done', bytes: 5000 });
    expect(await convertFile(film())).toBeNull();
    await settled();
    expect(asked.some((address) => address.startsWith('DELETE'))).toBe(false);
    expect(useConvert.getState().trouble?.code).toBe('server-answer');
  });

  it.each<[string, () => Partial<Response>, string]>([
    ['fails there', json({ state: 'failed', fault: 'unreadable' }), 'conversion-failed'],
    ['is answered with something else', json({ state: 'maybe' }), 'server-answer'],
    [
      'is answered with no JSON',
      () => ({ ok: true, json: () => Promise.reject(new SyntaxError('<')) }),
      'server-answer',
    ],
    ['is refused', () => ({ ok: false, status: 507 }), 'server-refused'],
  ])('that %s says so in our own words', async (_, answer, code) => {
    answers[`POST ${conversionPath(id)}`] = answer;
    expect(await convertFile(film())).toBeNull();
    expect(useConvert.getState()).toMatchObject({ stage: null, trouble: { code } });
    await settled();
    // What cannot be converted is deleted there; anything else goes on from what is there.
    expect(asked.some((address) => address.startsWith('DELETE'))).toBe(code === 'conversion-failed');
  });

  it('that is cancelled leaves nothing on the server, and no trouble', async () => {
    answers[`POST ${conversionPath(id)}`] = () => {
      cancelConversion();
      return json({ state: 'queued' })();
    };
    expect(await convertFile(film())).toBeNull();
    await settled();
    expect(asked.at(-1)).toBe(`DELETE ${conversionPath(id)}`);
    expect(useConvert.getState()).toMatchObject({ stage: null, trouble: null });
  });

  it('that takes the place of another is not cleared by the end of that one', async () => {
    let first: (value: string) => void = () => undefined;
    mockUpload.mockImplementationOnce(() => new Promise((resolve) => (first = resolve)));
    const before = convertFile(film('a.avi'));
    mockUpload.mockImplementationOnce(() => new Promise(() => undefined));
    void convertFile(film('b.avi'));
    first(id);
    expect(await before).toBeNull();
    expect(useConvert.getState().stage).toMatchObject({ name: 'send' });
  });

  it('is offered for what it may cure, where the server can', async () => {
    const trouble = { code: 'codec-missing', values: { file: 'a', codec: 'mpeg4' } } as const;
    answers['GET /convert/ability'] = json({ ffmpeg: true });
    expect(await canConvert(trouble)).toBe(true);
    expect(await canConvert({ code: 'empty-file', values: { file: 'a' } })).toBe(false);
    answers['GET /convert/ability'] = json({ ffmpeg: 'yes' });
    expect(await canConvert(trouble)).toBe(false);
  });
});
