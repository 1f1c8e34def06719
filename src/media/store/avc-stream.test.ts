import { setLevel, withFiller } from './avc-stream';

const bytes = (...values: number[]) => new Uint8Array(values);

describe('a stream of H.264', () => {
  it('gets another level in its sequence parameters, and nowhere else', () => {
    const data = bytes(
      0,
      0,
      0,
      1,
      9,
      16,
      0,
      0,
      0,
      1,
      0x67,
      100,
      0,
      31,
      1,
      0,
      0,
      1,
      0x68,
      5,
      6,
      7,
      0,
      0,
      1,
      0x65,
      1,
      2,
      3,
    );
    const before = [...data];
    setLevel(data, 42);
    expect([...data]).toEqual(before.map((value, i) => (i === 13 ? 42 : value)));
  });

  // ITU-T H.264, 7.3.2.7: ff_byte until the trailing bits; nal_unit_type 12.
  it('grows by a filler unit of just so many bytes, where one has room', () => {
    const filled = withFiller(bytes(1, 2, 3), 10);
    expect([...filled]).toEqual([1, 2, 3, 0, 0, 0, 1, 12, 255, 255, 255, 255, 128]);
    expect([...withFiller(bytes(1), 5)]).toEqual([1]);
  });
});
