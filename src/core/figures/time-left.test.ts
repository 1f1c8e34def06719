import { TimeLeft } from './time-left';

describe('the time that is left', () => {
  it('is right within a fifth once a tenth is done, also of what waits behind it', () => {
    const time = new TimeLeft();
    // The first file teaches how much quicker reading back is: 20 frames a second, then 100.
    time.making(1 / 20, 0, 1000);
    time.proving(1 / 100, 0);
    const [frames, make, prove] = [600, 1 / 20, 1 / 100];
    const whole = frames * (make + prove);
    for (const share of [0.1, 0.3, 0.6, 0.9]) {
      const spent = whole * share;
      const made = Math.min(frames, spent / make);
      const proved = (spent - made * make) / prove;
      const left =
        made < frames ? time.making(make, frames - made, frames) : time.proving(prove, frames - proved);
      expect(Math.abs((left ?? 0) / (whole - spent) - 1)).toBeLessThan(0.2);
    }
    expect(time.waiting(frames)).toBeCloseTo(whole, 0);
  });

  it('is that of the file before until its own pace is known, and none before anything is known', () => {
    const time = new TimeLeft();
    expect(time.waiting(10)).toBeNull();
    expect(time.making(null, 10, 10)).toBeNull();
    expect(time.proving(null, 10)).toBeNull();
    time.making(0.5, 0, 10);
    expect(time.making(null, 20, 20)).toBeCloseTo(time.waiting(20) ?? 0, 6);
    // Of one that is taken up again in its middle, what is left alone.
    expect(time.making(null, 5, 20)).toBeLessThan(time.making(null, 20, 20) ?? 0);
  });
});
