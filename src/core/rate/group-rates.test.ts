import fc from 'fast-check';
import { GroupRates, type RateAsked } from './group-rates';

/** What a group comes to, in bytes, when it is asked for video bits a second. */
type Encoder = (asked: number, group: number) => number;

/** Makes all groups as an export does: one after another, then those again that have to be. */
function made(asked: RateAsked, seconds: readonly number[], encoder: Encoder) {
  const rates = new GroupRates(asked, seconds);
  const bytes = seconds.map(() => 0);
  let makings = 0;
  const make = (group: number, bits: number) => {
    bytes[group] = Math.round((encoder(bits, group) * (seconds[group] as number)) / 8);
    rates.made(group, bits, bytes[group] as number);
    makings += 1;
  };
  seconds.forEach((_, group) => make(group, rates.bitsFor(group)));
  for (let again = rates.again(); again.length > 0; again = rates.again()) {
    for (const { group, bits } of again) make(group, bits);
  }
  const filled = bytes.map((one, group) => one + rates.filling(group));
  return { bytes, filled, makings, total: filled.reduce((sum, one) => sum + one, 0) };
}

const seconds = Array.from({ length: 20 }, () => 2);
/** Encoders that spend another share of what they are asked for in each group, and one that ends at some rate. */
const shares = fc.array(fc.double({ min: 0.4, max: 1.6, noNaN: true }), { minLength: 20, maxLength: 20 });

describe('a constant rate', () => {
  const asked: RateAsked = { kind: 'constant', bits: 6e6, mostBits: 6e6 };

  it('is the same in every group, whatever an encoder spends: over it is made again, under it is filled', () => {
    fc.assert(
      fc.property(shares, (spent) => {
        const { filled } = made(asked, seconds, (bits, group) => bits * (spent[group] as number));
        for (const bytes of filled) expect(Math.abs((bytes * 8) / 2 / 6e6 - 1)).toBeLessThanOrEqual(0.05);
      }),
    );
  });

  it('is not made again where it is under', () => {
    const { makings } = made(asked, seconds, (bits) => 0.7 * bits);
    expect(makings).toBe(seconds.length);
  });
});

describe('a size to land on', () => {
  const asked: RateAsked = { kind: 'size', bits: 5e6, mostBits: 50e6 };
  const wanted = (5e6 * 40) / 8;

  it('is met within 3 %, whatever an encoder spends', () => {
    fc.assert(
      fc.property(shares, (spent) => {
        const { total } = made(asked, seconds, (bits, group) => bits * (spent[group] as number));
        expect(Math.abs(total / wanted - 1)).toBeLessThanOrEqual(0.03);
      }),
    );
  });

  it('is met in one go by an encoder that is even, since it learns from the first group', () => {
    const { total, makings } = made(asked, seconds, (bits) => 0.6 * bits);
    expect(Math.abs(total / wanted - 1)).toBeLessThanOrEqual(0.02);
    expect(makings).toBe(seconds.length);
  });

  it('is given up where the encoder takes no more: it ends, and is under', () => {
    const { total, makings } = made(asked, seconds, (bits) => Math.min(bits, 2e6));
    expect(total).toBeLessThan(0.5 * wanted);
    expect(makings).toBeLessThanOrEqual(5 * seconds.length);
  });
});

describe('a variable rate', () => {
  it('is left alone under its most, and made again over it', () => {
    const asked: RateAsked = { kind: 'variable', bits: 5e6, mostBits: 10e6 };
    const busy: Encoder = (bits, group) => bits * (group === 3 ? 3 : 1);
    const { bytes, makings } = made(asked, seconds, busy);
    expect((bytes[3]! * 8) / 2).toBeLessThanOrEqual(10e6);
    expect(makings).toBe(seconds.length + 1);
    const calm: RateAsked = { kind: 'quality', bits: 5e6, mostBits: 5e6 };
    expect(made(calm, seconds, busy).makings).toBe(seconds.length);
  });
});
