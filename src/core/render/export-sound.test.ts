import { exportChannels, exportSampleRate } from './export-sound';

// Outlets keep 44.1 and 48 kHz (common practice, no source).
it.each([
  [44100, 44100],
  [48000, 48000],
  [96000, 48000],
  [22050, 48000],
  [8000, 48000],
])('%i Hz leaves as %i Hz', (master, made) => {
  expect(exportSampleRate(master)).toBe(made);
});

it.each([
  [1, 1],
  [2, 2],
  [6, 2],
  [8, 2],
])('%i channels leave as %i', (master, made) => {
  expect(exportChannels(master)).toBe(made);
});
