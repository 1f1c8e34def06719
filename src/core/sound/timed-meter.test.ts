import { TimedMeter } from './timed-meter';

const RATE = 8000;
const tone = (seconds: number) => [
  Float32Array.from({ length: seconds * RATE }, (_, i) => Math.sin((2 * Math.PI * 1000 * i) / RATE)),
];
const isHeard = (meter: TimedMeter) => meter.steps().map((power) => power > 0.01);

it('loudness has its place in time where sound begins late and has holes', () => {
  const meter = new TimedMeter(RATE, 1);
  meter.push(tone(0.5), 1.5 * RATE);
  meter.push(tone(0.5), 2 * RATE);
  meter.push(tone(0.3), 3 * RATE);
  const [silent, heard] = [false, true].map((value) => (steps: number) => Array<boolean>(steps).fill(value));
  expect(isHeard(meter)).toEqual([...silent!(15), ...heard!(10), ...silent!(5), ...heard!(3)]);
});
