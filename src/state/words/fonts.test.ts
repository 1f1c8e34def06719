import { TroubleError } from '@core/trouble/trouble';
import { findMissingGraphemes } from '@core/words/font-runs';
import { FontBook } from '@core/words/font-index';
import { addFont, dropFont, useFontList } from './fonts';
import { storage } from '../store';

const mockMedia = { keep: jest.fn(), family: jest.fn(), dropped: [] as string[] };
jest.mock('@media/worker/tasks', () => ({
  keepFont: ({ file }: { file: File }) => mockMedia.keep(file) as unknown,
}));
jest.mock('@media/words/fonts', () => ({ shippedFonts: jest.fn() }));
jest.mock('@media/words/own-fonts', () => ({
  ownFontFamily: () => mockMedia.family() as unknown,
  ownFontNames: (family: string) => ({ bytes: `${family}.font`, facts: `${family}.json` }),
}));
jest.mock('@media/store/storage', () => ({
  deleteStored: (_folder: string, name: string) => Promise.resolve(void mockMedia.dropped.push(name)),
}));

const FAMILY = `own-${'0'.repeat(16)}`;
const family = (ranges: string) => ({
  ascent: 1,
  descent: 0.2,
  capHeight: 0.7,
  files: [{ file: 'own', weight: 400, ranges }],
});
const file = { name: 'runes.ttf' } as File;

beforeEach(async () => {
  await storage.clear();
  useFontList.setState({
    book: new FontBook({ families: { plain: family('20-7e') } }),
    own: [],
    trouble: null,
  });
  mockMedia.keep.mockReset().mockResolvedValue({ family: FAMILY, name: 'Runes' });
  mockMedia.family.mockReset().mockResolvedValue(family('16a0-16f8'));
});

describe('a font of one’s own', () => {
  it('brings characters that no other has, and goes again', async () => {
    const missing = () => findMissingGraphemes('ᚠ a', FAMILY, useFontList.getState().book!);
    expect(missing()).toEqual(['ᚠ']);
    expect(await addFont(file)).toEqual({ family: FAMILY, name: 'Runes' });
    expect(useFontList.getState().own).toHaveLength(1);
    expect(missing()).toEqual([]);
    // The same file again is the same font.
    await addFont(file);
    expect(useFontList.getState().own).toHaveLength(1);
    await dropFont(FAMILY);
    expect(useFontList.getState().own).toEqual([]);
    expect(mockMedia.dropped).toEqual([`${FAMILY}.font`, `${FAMILY}.json`]);
  });

  it('that is none is told, and changes nothing', async () => {
    const trouble = { file: 'runes.ttf', detail: 'its tables are damaged' };
    mockMedia.keep.mockRejectedValue(new TroubleError('not-font', trouble));
    expect(await addFont(file)).toBeNull();
    expect(useFontList.getState()).toMatchObject({ own: [], trouble: { code: 'not-font', values: trouble } });
  });
});
