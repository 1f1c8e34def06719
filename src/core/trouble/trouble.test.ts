import fc from 'fast-check';
import { z } from 'zod';
import {
  type Trouble,
  TROUBLE_CODES,
  type TroubleCode,
  TroubleError,
  toTrouble,
  troubleSchema,
  troubleWords,
} from './trouble';
import { TROUBLES } from './troubles';

/** Every value that the words of a code may have. */
function anyValues(code: TroubleCode): fc.Arbitrary<Trouble> {
  const shape = TROUBLES[code].values.shape as Record<string, z.ZodType>;
  const values = Object.fromEntries(Object.entries(shape).map(([key, schema]) => [key, anyOf(schema)]));
  return fc.record(values).map((made) => ({ code, values: made }) as unknown as Trouble);
}

function anyOf(schema: z.ZodType): fc.Arbitrary<unknown> {
  if (schema instanceof z.ZodArray) {
    return fc.constantFrom([], [{ track: 1, codec: 'aac', channels: 2 }]);
  }
  if (schema instanceof z.ZodEnum) return fc.constantFrom(...schema.options);
  if (schema instanceof z.ZodNumber) return fc.integer({ min: 0, max: 2 ** 40 });
  if (schema instanceof z.ZodNullable)
    return fc.oneof(fc.constant(null), anyOf(schema.unwrap() as z.ZodType));
  return fc.constantFrom('edit.mp4', 'hevc', 'Verrow');
}

it.each(TROUBLE_CODES)('says of %s what happened and what to do, with every value it can have', (code) => {
  fc.assert(
    fc.property(anyValues(code), (trouble) => {
      const { what, todo } = troubleWords(trouble);
      expect(what).toMatch(/^[A-Z\d].*\.$|^edit\.mp4 .*\.$|^hevc .*\.$/);
      expect(todo).toMatch(/^[A-Z].*\.$/);
      expect(what + todo).not.toMatch(/undefined|NaN|null|\[object|!|\.\.|  /);
      expect(troubleSchema.parse(trouble)).toEqual(trouble);
    }),
    { numRuns: 60 },
  );
});

it('names the codec and what would work', () => {
  const { what, todo } = troubleWords({ code: 'codec-missing', values: { file: 'edit.mp4', codec: 'hevc' } });
  expect(what).toContain('H.265');
  expect(todo).toContain('H.264');
});

it('keeps the code of a trouble and gives the fallback to any other error', () => {
  const gone = new TroubleError('no-video', { file: 'a' });
  expect(toTrouble(gone, 'export-failed', {})).toEqual({ code: 'no-video', values: { file: 'a' } });
  expect(toTrouble(new Error('odd'), 'damaged', { file: 'b' })).toEqual({
    code: 'damaged',
    values: { file: 'b', detail: 'odd' },
  });
  expect(toTrouble(new Error(''), 'export-failed', {}).values).toEqual({ detail: 'no reason was given' });
});

it('takes none from elsewhere that is made up, or that lacks a value', () => {
  expect(troubleSchema.safeParse({ code: 'made-up', values: {} }).success).toBe(false);
  expect(troubleSchema.safeParse({ code: 'damaged', values: { file: 'edit.mp4' } }).success).toBe(false);
});
