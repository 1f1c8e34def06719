/** Parts of OpenAPI 3.1 documents. */
import { z } from 'zod';

/** A schema of the code as a published one (JSON Schema 2020-12). */
export const toJsonSchema = (schema: z.ZodType): object => {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });
  return rest;
};
/** A body that has a named schema. */
export const json = (name: string) => ({
  'application/json': { schema: { $ref: `#/components/schemas/${name}` } },
});
export const answer = (description: string, name?: string) => ({
  description,
  ...(name && { content: json(name) }),
});
export const problem = (description: string) => answer(description, 'Problem');
/** A part of an address. */
export const toPathParameter = (name: string, description: string, pattern: string) => ({
  ...{ name, in: 'path', required: true, description, schema: { type: 'string', pattern } },
});
