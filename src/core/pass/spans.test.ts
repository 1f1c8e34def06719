import fc from 'fast-check';
import { type CodedPicture, SpanFinder } from './spans';

const spansOf = (pictures: readonly CodedPicture[], least = 1) => {
  const finder = new SpanFinder(least);
  for (const picture of pictures) finder.push(picture);
  return finder.finish();
};
/** Pictures of a name each: `I` a key frame, `P` in order, `B` shown before the picture it follows. */
const coded = (text: string): CodedPicture[] =>
  [...text].map((kind, i) => ({ timestamp: kind === 'B' ? i - 1.5 : i, key: kind === 'I' }));

describe('spans of a file', () => {
  it('begin at key frames', () => {
    expect(spansOf(coded('IPPIPPPI'))).toEqual([
      { start: 0, pictures: 3 },
      { start: 3, pictures: 4 },
      { start: 7, pictures: 1 },
    ]);
  });

  it('do not begin where pictures after the key frame show before it', () => {
    expect(spansOf(coded('IPBPIBPIPP'))).toEqual([
      { start: 0, pictures: 7 },
      { start: 7, pictures: 3 },
    ]);
    // Within a group it does not matter.
    expect(spansOf(coded('IPBPBIPBP'))).toHaveLength(2);
  });

  it('are joined while they are short', () => {
    expect(spansOf(coded('IIIIIII'), 3).map((span) => span.pictures)).toEqual([3, 3, 1]);
  });

  it('leave out what comes before the first key frame', () => {
    expect(spansOf(coded('PPBIPP'))).toEqual([{ start: 3, pictures: 3 }]);
    expect(spansOf(coded('PPP'))).toEqual([]);
    expect(spansOf([])).toEqual([]);
  });

  it('hold every picture once, begin at key frames and keep to the least, whatever the file', () => {
    const kinds = fc.array(fc.constantFrom('I', 'P', 'P', 'B'), { maxLength: 60 });
    fc.assert(
      fc.property(kinds, fc.integer({ min: 1, max: 9 }), (rest, least) => {
        const pictures = coded(['I', ...rest].join(''));
        const spans = spansOf(pictures, least);
        expect(spans.reduce((sum, span) => sum + span.pictures, 0)).toBe(pictures.length);
        let from = 0;
        for (const [i, span] of spans.entries()) {
          expect(pictures[from]).toEqual({ timestamp: span.start, key: true });
          if (i < spans.length - 1) expect(span.pictures).toBeGreaterThanOrEqual(least);
          // Nothing after its start shows before it, in this span or a later one, but for the file's own start.
          const early = pictures.slice(from).filter((picture) => picture.timestamp < span.start);
          if (i > 0) expect(early).toEqual([]);
          from += span.pictures;
        }
      }),
    );
  });
});
