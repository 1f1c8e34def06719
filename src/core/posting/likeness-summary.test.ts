import { isReshaped } from './post-order';
import { summarizeLikeness } from './likeness-summary';

describe('the likeness of what a viewer gets', () => {
  it('names the second that is least like, and its worst frame', () => {
    const scores = [1, 1, 0.9, 0.8, 0.7, 0.9, 1];
    const { ssim, worst } = summarizeLikeness(scores, 3);
    expect(ssim).toBeCloseTo(0.9, 10);
    expect(worst).toEqual({ second: 1, frame: 4, ssim: expect.closeTo(0.8, 10) as number });
  });

  it('counts frames of a rate that is not whole', () => {
    const scores = Array.from({ length: 100 }, (_, n) => (n === 48 ? 0.2 : 0.99));
    expect(summarizeLikeness(scores, 24000 / 1001).worst).toMatchObject({ second: 2, frame: 48 });
  });

  it('has at least a frame', () => {
    expect(summarizeLikeness([0.5], 30)).toEqual({ ssim: 0.5, worst: { second: 0, frame: 0, ssim: 0.5 } });
    expect(() => summarizeLikeness([], 30)).toThrow(RangeError);
  });
});

describe('what an outlet shows', () => {
  it.each([
    [{ width: 720, height: 1280 }, false],
    [{ width: 606, height: 1080 }, false],
    [{ width: 1080, height: 1350 }, true],
    [{ width: 1280, height: 720 }, true],
  ])('%o is another shape than 1080×1920: %s', (size, is) => {
    const worst = { second: 0, frame: 0, ssim: 1 };
    const compared = { ...size, sent: { width: 1080, height: 1920 }, bytes: 1, frames: 1, ssim: 1, worst };
    expect(isReshaped(compared)).toBe(is);
    expect(isReshaped({ ...compared, sent: undefined })).toBe(false);
  });
});
