import { TimeLeft } from './time-left';

describe('the time that is left', () => {
  it('is right within a fifth once a tenth is done, also of what waits behind it', () => {
    const time = new TimeLeft();
    // The first file teaches how much quicker reading back is: 20 frames a second, then 100.
    time.making(50, 1000, 1000, 0);
    time.proving(10, 1000, 0);
    const [frames, make, prove] = [600, 1 / 20, 1 / 100];
    const whole = frames * (make + prove);
    for (const share of [0.1, 0.3, 0.6, 0.9]) {
      const spent = whole * share;
      const done = Math.min(frames, spent / make);
      const left =
        done < frames
          ? time.making(spent, done, frames, frames - done)
          : time.proving(
              spent - frames * make,
              (spent - frames * make) / prove,
              frames - (spent - frames * make) / prove,
            );
      expect(Math.abs((left ?? 0) / (whole - spent) - 1)).toBeLessThan(0.2);
    }
    expect(time.waiting(frames)).toBeCloseTo(whole, 0);
  });

  it('is not told before anything is known', () => {
    const time = new TimeLeft();
    expect(time.waiting(10)).toBeNull();
    expect(time.making(0, 0, 10, 10)).toBeNull();
    expect(time.proving(1, 0, 10)).toBeNull();
  });
});
