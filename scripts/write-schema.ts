/** Writes the published JSON Schemas of files to docs/schema/, from the schemas that read them. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { reportJsonSchema } from '../src/core/interchange/check-report';
import { jobFileJsonSchema } from '../src/core/interchange/job-file';
import { sheetFileJsonSchema } from '../src/core/interchange/sheet-file';

const SCHEMAS = {
  job: jobFileJsonSchema,
  'rule-sheet': sheetFileJsonSchema,
  'check-report': reportJsonSchema,
};

mkdirSync('docs/schema', { recursive: true });
for (const [name, schema] of Object.entries(SCHEMAS)) {
  writeFileSync(`docs/schema/${name}.schema.json`, `${JSON.stringify(schema(), null, 2)}\n`);
}
