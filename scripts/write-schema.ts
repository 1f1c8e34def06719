/** Writes the published JSON Schema of a job as a file to docs/schema/, from the schema that reads it. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { jobFileJsonSchema } from '../src/core/interchange/job-file';

mkdirSync('docs/schema', { recursive: true });
writeFileSync('docs/schema/job.schema.json', `${JSON.stringify(jobFileJsonSchema(), null, 2)}\n`);
