import { isPicked, togglePickedShot } from './pick-shots';

const range = (first: number, out: number, master = 'a') => ({ master, in: first, out });

describe('picking shots', () => {
  it('keeps the first alone while all of the master is kept, and adds the next in order', () => {
    const one = togglePickedShot([range(0, 100)], range(40, 60), 100);
    expect(one).toEqual([range(40, 60)]);
    const two = togglePickedShot(one, range(10, 20), 100);
    expect(two).toEqual([range(10, 20), range(40, 60)]);
    expect(togglePickedShot(two, range(80, 90), 100)).toEqual([...two, range(80, 90)]);
    expect(isPicked(two, range(10, 20))).toBe(true);
    expect(isPicked(two, range(10, 21))).toBe(false);
  });

  it('takes a picked one out again, but never the last', () => {
    const two = [range(10, 20), range(40, 60)];
    expect(togglePickedShot(two, range(10, 20), 100)).toEqual([range(40, 60)]);
    expect(togglePickedShot([range(40, 60)], range(40, 60), 100)).toEqual([range(40, 60)]);
  });

  it('leaves ranges of other masters where they are', () => {
    const cut = [range(0, 50, 'b'), range(40, 60)];
    expect(togglePickedShot(cut, range(10, 20), 100)).toEqual([
      range(0, 50, 'b'),
      range(10, 20),
      range(40, 60),
    ]);
  });
});
