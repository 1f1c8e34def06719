import {
  listAnchors,
  distinctBoxes,
  fromLetterbox,
  computeLetterbox,
  readAnchors,
  readHeatmap,
} from './read-heatmap';

describe('a picture in what a model takes', () => {
  it('lies in the middle, as large as it can, and back', () => {
    const box = computeLetterbox(16 / 9, { width: 384, height: 224 });
    expect(box.picture).toEqual({ x: 0, y: 4, width: 384, height: 216 });
    expect(fromLetterbox({ x: 96, y: 58, width: 192, height: 108 }, box)).toEqual({
      ...{ x: 0.25, y: 0.25, width: 0.5, height: 0.5 },
    });
    expect(computeLetterbox(9 / 16, { width: 256, height: 256 }).picture).toEqual({
      ...{ x: 56, y: 0, width: 144, height: 256 },
    });
  });
});

describe('a map of scores', () => {
  const map = (marks: [x: number, y: number, of: number, score: number][]) => {
    const scores = new Float32Array(4 * 3 * 2);
    const sides = new Float32Array(4 * 3 * 4).fill(5);
    for (const [x, y, of, score] of marks) scores[(y * 4 + x) * 2 + of] = score;
    return { scores, sides, across: 4, down: 3, classes: 2, stride: 4 };
  };

  it('gives the highest among neighbours of a class, with the box around it', () => {
    const found = readHeatmap(
      map([
        [1, 1, 0, 0.9],
        [2, 1, 0, 0.5],
        [2, 1, 1, 0.4],
        [3, 0, 0, 0.1],
      ]),
      0.2,
    );
    expect(found.map(({ of, confidence }) => [of, Number(confidence.toFixed(2))])).toEqual([
      [0, 0.9],
      [1, 0.4],
    ]);
    expect(found[0]?.box).toEqual({ x: -1, y: -1, width: 10, height: 10 });
  });

  it('gives nothing without an extent', () => {
    const flat = map([[1, 1, 0, 0.9]]);
    flat.sides.fill(0);
    expect(readHeatmap(flat, 0.2)).toEqual([]);
  });
});

describe('rows over anchors', () => {
  it('are faces where their score says so, one for each place', () => {
    const anchors = listAnchors(64, [
      { stride: 32, count: 2 },
      { stride: 16, count: 1 },
    ]);
    expect(anchors).toHaveLength(2 * 2 * 2 + 4 * 4);
    expect(anchors[0]).toEqual([0.25, 0.25]);
    const scores = new Float32Array(anchors.length).fill(-9);
    const boxes = new Float32Array(anchors.length * 16);
    [0, 1].forEach((row) => {
      scores[row] = row === 0 ? 3 : 2;
      boxes.set([4, -4, 20, 20], row * 16);
    });
    const [face, ...others] = readAnchors({ scores, boxes }, anchors, 64, 0.5);
    expect(others).toEqual([]);
    expect(face?.box).toEqual({ x: 10, y: 2, width: 20, height: 20 });
    // Closed form: 1 / (1 + e⁻³).
    expect(face?.confidence).toBeCloseTo(0.952574, 6);
  });

  it('keep two of different classes at one place', () => {
    const box = { x: 0, y: 0, width: 10, height: 10 };
    const found = [0, 1].map((of) => ({ of, confidence: 0.5, box }));
    expect(distinctBoxes(found, 0.5)).toHaveLength(2);
  });
});
