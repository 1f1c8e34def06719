import { TROUBLE_CODES, TroubleError, troubleOf, troubleSchema, troubleWords } from './trouble';

const values = {
  file: 'edit.mp4',
  codec: 'hevc',
  detail: 'it broke',
  format: 'RGBA',
  width: 8,
  height: 8,
  need: 5e9,
  free: 1e6,
  wanted: 'other.mp4',
  outlet: 'Verrow',
};

it.each(TROUBLE_CODES)('says of %s what happened and what to do', (code) => {
  const { what, todo } = troubleWords({ code, values });
  expect(what).toMatch(/\.$/);
  expect(todo).toMatch(/\.$/);
  expect(what + todo).not.toMatch(/undefined|NaN|!/);
});

it('names the codec and what would work', () => {
  const { what, todo } = troubleWords({ code: 'codec-missing', values });
  expect(what).toContain('H.265');
  expect(todo).toContain('H.264');
});

it('keeps the code of a trouble and gives the fallback to any other error', () => {
  expect(troubleOf(new TroubleError('no-video', { file: 'a' }), 'damaged')).toEqual({
    code: 'no-video',
    values: { file: 'a' },
  });
  expect(troubleOf(new Error('odd'), 'damaged')).toEqual({ code: 'damaged', values: { detail: 'odd' } });
  expect(troubleSchema.safeParse({ code: 'made-up', values: {} }).success).toBe(false);
});
