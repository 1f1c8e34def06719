import fc from 'fast-check';
import { formatTimecode } from './timecode';
import { parseEntry } from './timecode-entry';

const FILM = { num: 24000, den: 1001 };
const DROP = { num: 30000, den: 1001 };
const at25 = (text: string, from = 0) => parseEntry(text, { rate: { num: 25, den: 1 }, from });

describe('typed times', () => {
  it.each([
    ['310', 310],
    ['1:02', 1550],
    ['1:02.5', 1562],
    ['0:00', 0],
    ['1:00:00', 90000],
    ['1.5s', 37],
    ['1,5 s', 37],
    ['2s', 50],
    ['00:01:02:04', 1554],
    ['+12', 112],
    ['-12', 88],
    ['−12', 88],
    ['+1s', 125],
    ['+ 0:02', 150],
    [' 7 ', 7],
  ])('%s', (text, frame) => {
    expect(at25(text, 100)).toBe(frame);
  });

  // SMPTE ST 12-1: at 29.97 drop-frame, 00:01:02;04 is frame 62 · 30 + 4 − 2.
  it('take drop-frame timecode by its semicolon', () => {
    expect(parseEntry('00:01:02;04', { rate: DROP, from: 0 })).toBe(1862);
    expect(parseEntry('00:01:00;00', { rate: DROP, from: 0 })).toBeNull();
  });

  it.each(['', '  ', 'nonsense', '1:99', '12:', '+', '1.5', '--3', '1e3', '00:00:00:99'])(
    '%p means nothing',
    (text) => {
      expect(at25(text)).toBeNull();
    },
  );

  it('read back every timecode that is shown', () => {
    fc.assert(
      fc.property(fc.nat(2_000_000), fc.constantFrom(FILM, DROP), (frame, rate) => {
        const text = formatTimecode(frame, rate, rate === DROP);
        expect(parseEntry(text, { rate, from: 0 })).toBe(frame);
      }),
    );
  });
});
