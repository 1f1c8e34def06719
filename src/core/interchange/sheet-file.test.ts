import { readFileSync } from 'node:fs';
import Ajv2020 from 'ajv/dist/2020';
import { SHIPPED_SHEETS } from '../outlets/shipped';
import { readSheetFile, sheetFileJsonSchema, writeSheetFile } from './sheet-file';

const [verrow] = SHIPPED_SHEETS;

describe('a rule sheet as a file', () => {
  it('comes back as it was', () => {
    for (const sheet of SHIPPED_SHEETS) expect(readSheetFile(writeSheetFile(sheet))).toEqual({ sheet });
  });

  // Outside reference: ajv, a validator of JSON Schema (draft 2020-12).
  it('keeps to the published schema, and what does not is not taken', () => {
    const schema = JSON.parse(readFileSync('docs/schema/rule-sheet.schema.json', 'utf8')) as object;
    expect(schema).toEqual(JSON.parse(JSON.stringify(sheetFileJsonSchema())));
    const valid = new Ajv2020({ strict: false, validateFormats: false }).compile(schema);
    for (const sheet of SHIPPED_SHEETS) expect(valid(JSON.parse(writeSheetFile(sheet)))).toBe(true);
    const broken = { ...verrow!, placements: [{ ...verrow!.placements[0]!, mostBytes: 'much' }] };
    const text = writeSheetFile(broken as never);
    expect(valid(JSON.parse(text))).toBe(false);
    expect(readSheetFile(text)).toMatchObject({ problem: /placements\.0\.mostBytes/ });
  });

  it.each([
    ['no JSON', 'outlet: verrow', /not JSON/],
    ['another file', '{"format":"gusset-job","job":{}}', /not a rule sheet that was saved here/],
    ['one from the future', '{"format":"gusset-rule-sheet","sheet":{"schemaVersion":7}}', /newer Gusset/],
    ['an empty sheet', '{"format":"gusset-rule-sheet","sheet":{"schemaVersion":2}}', /outlet:/],
  ])('says what is wrong with %s', (_, text, problem) => {
    expect(readSheetFile(text)).toEqual({ problem: expect.stringMatching(problem) as string });
  });
});
