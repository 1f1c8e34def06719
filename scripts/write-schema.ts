/** Writes the published JSON Schemas of files to docs/schema/, and the render server's interface, from the code. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { reportJsonSchema } from '../src/core/interchange/check-report';
import { jobFileJsonSchema } from '../src/core/interchange/job-file';
import { renderApi } from '../src/core/interchange/render-api';
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
writeFileSync('docs/render-api.json', `${JSON.stringify(renderApi(), null, 2)}\n`);
