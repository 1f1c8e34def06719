import Timecode from 'smpte-timecode';
import { formatTimecode, lengthLabel, parseTimecode } from './timecode';

const DROP = { num: 30000, den: 1001 };
const FILM = { num: 24000, den: 1001 };
const DOUBLE = { num: 60000, den: 1001 };
const FRAMES_IN_DROP_DAY = 2589408;

describe('timecode', () => {
  // Reference: the open library smpte-timecode 1.3, which follows SMPTE ST 12-1.
  it('counts drop-frame as the reference does, over a whole day', () => {
    for (let frame = 0; frame < FRAMES_IN_DROP_DAY; frame += 997) {
      expect(formatTimecode(frame, DROP, true)).toBe(new Timecode(frame, 29.97, true).toString());
    }
  });

  it('counts around every minute of two hours as the reference does', () => {
    for (let minute = 0; minute < 120; minute++) {
      for (let near = -3; near <= 3; near++) {
        const frame = Math.max(0, Math.round((minute * 60 * 30000) / 1001) + near);
        expect(formatTimecode(frame, DROP, true)).toBe(new Timecode(frame, 29.97, true).toString());
        expect(formatTimecode(frame, DOUBLE, true)).toBe(new Timecode(frame, 59.94, true).toString());
      }
    }
  });

  // SMPTE ST 12-1:2014 clause 5.2.2: frames 00 and 01 are left out of every minute but each tenth.
  it.each([
    [1799, '00:00:59;29'],
    [1800, '00:01:00;02'],
    [17981, '00:09:59;29'],
    [17982, '00:10:00;00'],
    [107892, '01:00:00;00'],
    [FRAMES_IN_DROP_DAY - 1, '23:59:59;29'],
  ])('gives frame %i the number %s', (frame, text) => {
    expect(formatTimecode(frame, DROP, true)).toBe(text);
    expect(parseTimecode(text, DROP)).toBe(frame);
  });

  it('reads back every number that it writes', () => {
    for (let frame = 0; frame < 200000; frame += 131) {
      for (const [rate, drop] of [
        [DROP, true],
        [DROP, false],
        [FILM, false],
        [DOUBLE, true],
      ] as const) {
        expect(parseTimecode(formatTimecode(frame, rate, drop), rate)).toBe(frame);
      }
    }
  });

  it('counts frames that last longer than a second one by one', () => {
    const slow = { num: 1, den: 5 };
    expect(formatTimecode(67, slow)).toBe('00:01:07:00');
    expect(parseTimecode('00:01:07:00', slow)).toBe(67);
  });

  it('counts 23.976 by 24', () => {
    expect(formatTimecode(984, FILM)).toBe('00:00:41:00');
    expect(formatTimecode(270, FILM)).toBe('00:00:11:06');
  });

  it.each(['00:01:00;00', '00:00:00:24x', '1:2', '00:00:61:00', '00:00:00:31', ''])('refuses %p', (text) => {
    expect(parseTimecode(text, DROP)).toBeNull();
  });

  it('has no drop-frame at 23.976, and no fractions of frames', () => {
    expect(() => formatTimecode(10, FILM, true)).toThrow(RangeError);
    expect(() => formatTimecode(1.5, FILM)).toThrow(RangeError);
    expect(parseTimecode('00:00:01;00', FILM)).toBeNull();
  });

  it('writes lengths for people', () => {
    expect([41.041, 64.5, 59.96, 0].map(lengthLabel)).toEqual(['0:41.0', '1:04.5', '1:00.0', '0:00.0']);
  });
});
