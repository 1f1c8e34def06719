import { SHIPPED_SHEETS } from '../outlets/shipped';
import { PLAIN_ENCODING } from '../rate/encoding';
import { exportPreset, exportPresetsFile, isOutdated } from './export-preset';

const canvas = { width: 1080, height: 1350, placement: 'tesselle/portrait' };
const preset = exportPreset('Feed', canvas, PLAIN_ENCODING, SHIPPED_SHEETS);

describe('an export preset', () => {
  it('has a name that says its size, once', () => {
    expect(preset.name).toBe('Feed 1080×1350');
    expect(exportPreset(preset.name, canvas, PLAIN_ENCODING, SHIPPED_SHEETS).name).toBe(preset.name);
    expect(exportPreset('x'.repeat(60), canvas, PLAIN_ENCODING, SHIPPED_SHEETS).name).toHaveLength(60);
  });

  it('goes out and in as JSON', () => {
    expect(exportPresetsFile.read(exportPresetsFile.write([preset]))).toEqual({ all: [preset] });
    expect(
      exportPresetsFile.read('{"format":"gusset-export-presets","schemaVersion":1,"presets":[{}]}'),
    ).toHaveProperty('problem');
  });

  it('says when its sheet has changed, or is gone', () => {
    const changed = SHIPPED_SHEETS.map((sheet) => ({ ...sheet, about: `${sheet.about}!` }));
    expect(isOutdated(preset, SHIPPED_SHEETS)).toBe(false);
    expect(isOutdated(preset, changed)).toBe(true);
    expect(isOutdated(preset, [])).toBe(true);
    expect(isOutdated({ ...preset, placement: null }, [])).toBe(false);
  });
});
