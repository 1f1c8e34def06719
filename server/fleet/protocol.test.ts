import { parseFingerprint } from '../../src/core/master/fingerprint';
import { makeClip } from '../../tests/make-clip';
import { smallOrder } from '../../tests/small-order';
import { segmentJobSchema, segmentTicketSchema } from './protocol';

describe('an errand as a worker reads it', () => {
  const film = makeClip('told.mp4', { size: '320x180', seconds: 1 });
  const address = 'http://127.0.0.1:4101/work/1';

  async function good() {
    const { plan, making } = await smallOrder(film);
    const segment = { start: 0, frames: 24 };
    return {
      version: 'v',
      plan: { ...plan, overlays: [] },
      making: { ...making, sound: null },
      task: { bits: 1e6, held: false, segment, pass: null, keepsFrames: false, threads: 2 },
      masters: { [parseFingerprint('a'.repeat(64))]: address },
      kept: {},
      made: { segment: address },
    };
  }

  it('is taken as the server writes it, all of it', async () => {
    const errand = await good();
    expect(segmentJobSchema.parse(JSON.parse(JSON.stringify(errand)))).toEqual(errand);
  });

  it.each<[string, (errand: Awaited<ReturnType<typeof good>>) => object]>([
    ['a path for a fingerprint', () => ({ masters: { '../../../etc/cron.d/x': address } })],
    ['a file for an address', () => ({ made: { segment: 'file:///etc/passwd' } })],
    ['a file of another name', () => ({ made: { '../x': address } })],
    [
      'options of the encoder for a number',
      ({ making }) => ({
        making: { ...making, picture: { ...making.picture, keyFrames: '24:dump-yuv=/x' } },
      }),
    ],
    ['frames without end', ({ plan }) => ({ plan: { ...plan, frames: 1e10 } })],
    ['a canvas that fits nowhere', ({ plan }) => ({ plan: { ...plan, width: 1e6 } })],
    ['a rate of 1e9', ({ plan }) => ({ plan: { ...plan, rate: { num: 1e9, den: 1 } } })],
    ['threads by the thousand', ({ task }) => ({ task: { ...task, threads: 5000 } })],
  ])('is refused with %s', async (_what, change) => {
    const errand = await good();
    expect(segmentJobSchema.safeParse({ ...errand, ...change(errand) }).success).toBe(false);
  });

  it('is asked for at a web address alone', () => {
    expect(segmentTicketSchema.safeParse({ ticket: address }).success).toBe(true);
    expect(segmentTicketSchema.safeParse({ ticket: 'file:///etc/passwd' }).success).toBe(false);
  });
});
