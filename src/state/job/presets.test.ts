import { makeCanvas } from '@core/layout/canvas';
import { presets, savePreset } from './presets';
import { storage } from '../store';
import { templates } from '../words';

const canvas = makeCanvas('tesselle/square', { width: 1080, height: 1080 }, { num: 25, den: 1 }, 'canvas-4');
const names = () => presets.use.getState().all.map((preset) => preset.name);
const fileOf = (text: string) =>
  ({ name: 'presets.json', text: () => Promise.resolve(text) }) as unknown as File;

beforeEach(async () => {
  await storage.clear();
  presets.use.setState({ all: [] });
});

describe('presets', () => {
  it('of another tab stay when this one saves', async () => {
    await savePreset('Here', canvas);
    // Another tab has read the list before, and saves after.
    const here = presets.use.getState().all;
    presets.use.setState({ all: [] });
    await savePreset('There', canvas);
    expect(names()).toEqual(['Here', 'There']);
    presets.use.setState({ all: here });
    await presets.drop('Here');
    expect(names()).toEqual(['There']);
  });

  it('that could not be read back are refused', async () => {
    expect(await savePreset(' '.repeat(3), canvas)).toMatch(/^name: /);
    expect(await templates.save({ name: 'Mine', title: '{titel}', description: '', tags: [] })).toMatch(
      /^title: \{titel\} is none of/,
    );
    expect([names(), templates.use.getState().all]).toEqual([[], []]);
  });

  it('are kept in the browser, without what belongs to one clip', async () => {
    await savePreset('Grid', canvas);
    presets.use.setState({ all: [] });
    await presets.open();
    const [kept] = presets.use.getState().all;
    expect(kept).toMatchObject({
      name: 'Grid',
      placement: 'tesselle/square',
      width: 1080,
      rate: { num: 25 },
    });
    expect(kept).not.toHaveProperty('id');
    expect(kept).not.toHaveProperty('dye');
    expect(kept).not.toHaveProperty('detached');
  });

  it('that can be read stay where one beside them cannot', async () => {
    await savePreset('Grid', canvas);
    const text = (await storage.getItem('setting/presets')) ?? '';
    const file = JSON.parse(text) as { presets: object[] };
    await storage.setItem(
      'setting/presets',
      JSON.stringify({ ...file, presets: [{ name: 7 }, ...file.presets] }),
    );
    await presets.open();
    expect(names()).toEqual(['Grid']);
    await savePreset('Tall', canvas);
    expect(names()).toEqual(['Grid', 'Tall']);
    expect(await storage.getItem('setting/presets/unread')).toContain('"name":7');
  });

  it('are replaced under the same name, and deleted', async () => {
    await savePreset('Grid', canvas);
    await savePreset('Tall', { ...canvas, height: 1350 });
    await savePreset('Grid', { ...canvas, width: 720, height: 720 });
    expect(names()).toEqual(['Tall', 'Grid']);
    expect(presets.use.getState().all[1]?.width).toBe(720);
    await presets.drop('Tall');
    expect(names()).toEqual(['Grid']);
  });

  it('come in from a file beside those that are there', async () => {
    await savePreset('Grid', canvas);
    await savePreset('Tall', { ...canvas, height: 1350 });
    const text = JSON.stringify({
      format: 'gusset-presets',
      schemaVersion: 1,
      presets: presets.use.getState().all,
    });
    await presets.drop('Grid');
    await presets.drop('Tall');
    await savePreset('Own', canvas);
    expect(await presets.take(fileOf(text))).toBeNull();
    expect(names()).toEqual(['Own', 'Grid', 'Tall']);
  });

  it('stay as they are when a file is none, and it says why', async () => {
    await savePreset('Grid', canvas);
    expect(await presets.take(fileOf('not JSON'))).toMatch(/JSON/);
    expect(await presets.take(fileOf('{"format":"other"}'))).toMatch(/format/);
    expect(names()).toEqual(['Grid']);
  });

  it('that were damaged in the browser are left out', async () => {
    await storage.setItem('setting/presets', '{"format":');
    await presets.open();
    expect(names()).toEqual([]);
  });

  it('go out as a JSON file', async () => {
    await savePreset('Grid', canvas);
    const file = presets.file();
    expect(file.name).toBe('gusset-presets.json');
    expect(file.size).toBeGreaterThan(100);
  });
});
