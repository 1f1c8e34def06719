/** Writes the published JSON Schemas of files to docs/schema/, and the interfaces of the render server and of outlets, from the code. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { stringify } from 'yaml';
import { reportJsonSchema } from '../src/core/interchange/check-report';
import { jobFileJsonSchema } from '../src/core/interchange/job-file';
import { outletApiDocument } from '../src/core/interchange/outlet-api-document';
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
writeFileSync(
  'docs/outlet-api.yaml',
  stringify(JSON.parse(JSON.stringify(outletApiDocument())), { lineWidth: 110 }),
);
