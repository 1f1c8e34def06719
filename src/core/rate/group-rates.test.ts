import fc from 'fast-check';
import { GroupRates, type RateAsked } from './group-rates';

/** Simulated encoder: bytes of a group that was asked for video bits per second. */
type Encoder = (asked: number, group: number) => number;

/** Makes all groups as an export does: one after another, then those again that have to be. */
function made(asked: RateAsked, seconds: readonly number[], encoder: Encoder) {
  const rates = new GroupRates(asked, seconds);
  const bytes = seconds.map(() => 0);
  let [makings, planned] = [0, seconds.length];
  /** Groups that there would be to make in all, as foreseen after each. */
  const foreseen: number[] = [];
  const make = (group: number, bits: number) => {
    bytes[group] = Math.round((encoder(bits, group) * (seconds[group] as number)) / 8);
    rates.made(group, bits, bytes[group] as number);
    makings += 1;
    foreseen.push(planned + rates.foreseen() / 2);
  };
  seconds.forEach((_, group) => make(group, rates.computeBits(group)));
  for (let again = rates.again(); again.length > 0; again = rates.again()) {
    planned += again.length;
    for (const { group, bits } of again) make(group, bits);
  }
  const filled = bytes.map((one, group) => one + rates.filling(group));
  return { bytes, filled, makings, foreseen, total: filled.reduce((sum, one) => sum + one, 0) };
}

/** How far what was foreseen of all that is left to make was off, at worst, from a tenth of the way to nine. */
function worstForeseen({ makings, foreseen }: ReturnType<typeof made>): number {
  const off = foreseen.map((all, n) => Math.abs((all - n - 1) / (makings - n - 1) - 1));
  return Math.max(...off.slice(Math.ceil(0.1 * makings) - 1, Math.floor(0.9 * makings)));
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

  it('asks for less what an encoder overspends, and so makes little again', () => {
    const { makings } = made(asked, seconds, (bits) => 1.3 * bits);
    expect(makings).toBeLessThanOrEqual(1.2 * seconds.length);
  });

  it('foresees that all is made again where no group can be small enough, and tries that once', () => {
    const all = made(asked, seconds, (bits) => Math.max(bits, 15e6));
    expect(all.makings).toBeLessThanOrEqual(2 * seconds.length);
    expect(worstForeseen(all)).toBeLessThanOrEqual(0.2);
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

  it('takes what something else of the file did not take', () => {
    const rates = new GroupRates(asked, seconds);
    const bytes = seconds.map(() => 0);
    const make = (group: number, bits: number) => {
      bytes[group] = (bits * 2) / 8;
      rates.made(group, bits, bytes[group] as number);
    };
    seconds.forEach((_, group) => make(group, rates.computeBits(group)));
    expect(rates.again()).toEqual([]);
    rates.spare(0.2 * wanted);
    for (let again = rates.again(); again.length > 0; again = rates.again())
      for (const { group, bits } of again) make(group, bits);
    const total = bytes.reduce((sum, one) => sum + one, 0);
    expect(Math.abs(total / (1.2 * wanted) - 1)).toBeLessThanOrEqual(0.03);
  });

  it('takes no more than the greatest rate comes to, whatever was left', () => {
    const rates = new GroupRates({ ...asked, mostBits: 5.5e6 }, [2]);
    rates.spare(wanted);
    expect(rates.computeBits(0)).toBe(5.5e6);
  });

  it('is met in one go by an encoder that is even, since it learns from the first group', () => {
    const { total, makings } = made(asked, seconds, (bits) => 0.6 * bits);
    expect(Math.abs(total / wanted - 1)).toBeLessThanOrEqual(0.02);
    expect(makings).toBe(seconds.length);
  });

  it.each([
    ['takes no more', (bits: number) => Math.min(bits, 2e6), [0.3, 0.5]],
    ['makes it no smaller', (bits: number) => Math.max(bits, 15e6), [2.9, 3.1]],
  ])(
    'is given up soon where the encoder %s, and what that takes is foreseen',
    (_, encoder, [least, most]) => {
      const all = made(asked, seconds, encoder);
      expect(all.total / wanted).toBeGreaterThan(least!);
      expect(all.total / wanted).toBeLessThan(most!);
      expect(all.makings).toBeLessThanOrEqual(1.3 * seconds.length);
      expect(worstForeseen(all)).toBeLessThanOrEqual(0.25);
    },
  );

  it('is met by an encoder that follows only half of what it is told', () => {
    const { total, makings } = made(asked, seconds, (bits, group) => (5e6 + bits) * (group < 6 ? 0.9 : 0.3));
    expect(Math.abs(total / wanted - 1)).toBeLessThanOrEqual(0.03);
    expect(makings).toBeLessThanOrEqual(2 * seconds.length);
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
