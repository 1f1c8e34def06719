import { z } from 'zod';

/** A schema for objects that nobody changes in place: one that it took once is taken again without being looked at. */
export function memoizeSchema<T extends object>(schema: z.ZodType<T>): z.ZodType<T> {
  const valid = new WeakSet<object>();
  return z.custom<T>((value) => {
    if (typeof value !== 'object' || value === null) return false;
    if (valid.has(value)) return true;
    const isValid = schema.safeParse(value).success;
    if (isValid) valid.add(value);
    return isValid;
  });
}
