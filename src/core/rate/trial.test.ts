import { estimateBitrate, piecesToTry, trialPieces } from './trial';

const TV = { num: 25, den: 1 };
const range = (first: number, out: number) => ({ master: 'm', in: first, out });
/** Ten seconds, each with so many bits. */
const bits = [1, 1, 1, 1, 5, 5, 9, 9, 3, 3].map((mega) => mega * 1e6);
const piecesOf = (...ranges: [number, number][]) =>
  trialPieces(
    ranges.map(([first, out]) => range(first, out)),
    () => TV,
    () => bits,
  );

describe('pieces of a clip', () => {
  it('are about two seconds long, tile each range, and know how hard they are', () => {
    const pieces = piecesOf([0, 100], [200, 230]);
    expect(pieces.map(({ range }) => [range.in, range.out])).toEqual([
      [0, 50],
      [50, 100],
      [200, 230],
    ]);
    // Frames 75 to 125 are 3 s to 5 s: a second of 1 Mb and one of 5 Mb; frames 90 to 110 are 3.6 s to 4.4 s.
    expect(piecesOf([75, 125])[0]?.hardness).toBeCloseTo(3e6, 0);
    expect(piecesOf([90, 110])[0]?.hardness).toBeCloseTo(3e6, 0);
    expect(pieces[2]?.seconds).toBeCloseTo(1.2);
  });

  it('past the last second that is known are as hard as that', () => {
    expect(piecesOf([250, 300])[0]?.hardness).toBe(3e6);
  });

  it('are tried from the easiest to the hardest: two where all are alike, six at most', () => {
    expect(piecesToTry(piecesOf([0, 250])).map(({ hardness }) => hardness / 1e6)).toEqual([1, 1, 3, 5, 9]);
    expect(piecesToTry(piecesOf([0, 250], [0, 250]))).toHaveLength(6);
    expect(piecesToTry(piecesOf([0, 100], [0, 100]))).toHaveLength(2);
    expect(piecesToTry(piecesOf([0, 20]))).toHaveLength(1);
  });
});

describe('bits by trial', () => {
  it('are exact for a clip that was tried whole', () => {
    const pieces = piecesOf([0, 150]);
    const tried = piecesToTry(pieces).map((piece, i) => ({
      piece,
      bits: [2e6, 4e6, 9e6][i] as number,
    }));
    expect(estimateBitrate(pieces, tried)).toBeCloseTo((2e6 + 4e6 + 9e6) / 3, 0);
  });

  it('go by what the master spends between two tries, and no further past them', () => {
    const pieces = piecesOf([0, 250]);
    const [first, second, third] = pieces;
    if (!first || !second || !third) throw new Error('there are five pieces');
    const tried = [
      { piece: first, bits: 2e6 },
      { piece: third, bits: 4e6 },
    ];
    // 1, 1, 5, 9 and 3 Mb a second: 2, 2, 4, 4 and 3 come of it.
    expect(estimateBitrate(pieces, tried)).toBeCloseTo(3e6, 0);
  });

  it('need a try', () => {
    expect(() => estimateBitrate(piecesOf([0, 50]), [])).toThrow(RangeError);
  });
});
