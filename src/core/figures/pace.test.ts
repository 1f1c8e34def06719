import { Pace } from './pace';

describe('a pace', () => {
  it('is that of the newer half: a slow beginning is forgotten', () => {
    const pace = new Pace();
    expect(pace.at(0, 0)).toBeNull();
    // Ten at two seconds each, then thirty at half a second each.
    let seconds = 0;
    let found: number | null = null;
    for (let done = 1; done <= 40; done++) found = pace.at((seconds += done <= 10 ? 2 : 0.5), done);
    expect(found).toBeCloseTo(0.5, 6);
  });

  it('counts from where it was taken up, and needs two looks', () => {
    const pace = new Pace();
    expect(pace.at(5, 300)).toBeNull();
    expect(pace.at(6, 300)).toBeNull();
    expect(pace.at(7, 302)).toBeCloseTo(0.5, 6);
  });
});
