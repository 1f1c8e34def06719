import { readdirSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';

const CORE = path.join(__dirname, '..');
const MODULES = readdirSync(CORE, { recursive: true, encoding: 'utf8' }).filter((name) =>
  /^(?!.*\.test\.ts$).*\.ts$/.test(name),
);

/** Paths of the numbers of a JSON schema that lack a bound on either side. */
function unbounded(schema: unknown, at = ''): string[] {
  if (typeof schema !== 'object' || schema === null) return [];
  const node = schema as Record<string, unknown>;
  const within = (bound: unknown) => typeof bound === 'number' && Math.abs(bound) < Number.MAX_SAFE_INTEGER;
  const min = node.minimum ?? node.exclusiveMinimum;
  const isNumber = (node.type === 'number' || node.type === 'integer') && node.const === undefined;
  const isOpen = isNumber && !(within(min) && within(node.maximum));
  return [
    ...(isOpen ? [at] : []),
    ...Object.entries(node).flatMap(([key, part]) => unbounded(part, `${at}/${key}`)),
  ];
}

describe('numbers from outside', () => {
  it('have bounds in every schema of the core', async () => {
    const open: string[] = [];
    let schemas = 0;
    for (const name of MODULES) {
      const exported = (await import(path.join(CORE, name))) as Record<string, unknown>;
      for (const [key, value] of Object.entries(exported)) {
        if (!(value instanceof z.ZodType)) continue;
        schemas += 1;
        const json = z.toJSONSchema(value, { unrepresentable: 'any', io: 'input' });
        open.push(...unbounded(json).map((at) => `${name} ${key}${at}`));
      }
    }
    expect(schemas).toBeGreaterThan(60);
    expect(open).toEqual([]);
  });

  it('are found where one has none', () => {
    const json = z.toJSONSchema(z.object({ a: z.array(z.number().min(0)), b: z.number().int() }));
    expect(unbounded(json)).toEqual(['/properties/a/items', '/properties/b']);
  });
});
