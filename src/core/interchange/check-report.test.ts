import { readFileSync } from 'node:fs';
import Ajv2020 from 'ajv/dist/2020';
import Papa from 'papaparse';
import { CheckBoard } from '../check/check-board';
import { RULES } from '../check/rules';
import { applyCommand } from '../job/commands/commands';
import { testJob } from '../job/test-job';
import { LOOKED } from '../job/test-pass';
import { reportCsv, reportJson, reportJsonSchema, reportRows } from './check-report';
import { pictureKey, reportPage } from './report-page';

const start = testJob();
const reason = 'seen to by hand, "twice"';
const edit = applyCommand(start.edit, { type: 'set-override', rule: 'tag', canvas: 'canvas-1', reason });
const work = { masters: start.masters, edit };
const title = '=1+1, a "day"';
const rows = reportRows([{ title, work, cells: new CheckBoard().check(work, LOOKED) }], LOOKED.sheets);

describe('a report of checks', () => {
  it('has every rule, the worst first, with what was let pass and why', () => {
    expect(rows).toHaveLength(Object.keys(RULES).length);
    expect(rows[0]).toMatchObject({
      placement: 'Verrow Short',
      sheetDate: LOOKED.sheets.find(({ outlet }) => outlet === 'verrow')?.date,
      rule: 'Statement on children',
      result: 'stop',
      width: 1080,
    });
    expect(rows.find(({ rule }) => rule === 'Required tag')?.override).toBe(reason);
    expect(rows.at(-1)?.result).toBe('pass');
  });

  it('comes back from CSV, and no title is taken for a formula', () => {
    const read = Papa.parse<Record<string, string>>(reportCsv(rows), { header: true, skipEmptyLines: true });
    expect(read.errors).toEqual([]);
    expect(read.data).toHaveLength(rows.length);
    expect(read.data[0]).toMatchObject({ job: `'${title}`, height: '1920' });
    expect(read.data.find(({ rule }) => rule === 'Required tag')?.override).toBe(reason);
  });

  it('is a page whole in itself, with the picture of each clip, and nothing of a title is taken for markup', () => {
    const odd = rows.map((row) => ({ ...row, clip: '<b>Kite</b>' }));
    const page = reportPage(
      odd,
      { [pictureKey(title, '<b>Kite</b>')]: 'data:image/jpeg;base64,AA' },
      'today',
    );
    expect(page).toContain('<img src="data:image/jpeg;base64,AA" alt="">');
    expect(page).toContain('&lt;b&gt;Kite&lt;/b&gt;');
    expect(page).not.toContain('<b>Kite');
    expect(page).toContain('Let pass: seen to by hand, &quot;twice&quot;');
    expect(page).not.toMatch(/src="http|href=/);
  });

  // Outside reference: ajv, a validator of JSON Schema (draft 2020-12).
  it('keeps to the published schema as JSON', () => {
    const schema = JSON.parse(readFileSync('docs/schema/check-report.schema.json', 'utf8')) as object;
    expect(schema).toEqual(JSON.parse(JSON.stringify(reportJsonSchema())));
    const valid = new Ajv2020({ strict: false, validateFormats: false }).compile(schema);
    const report = JSON.parse(reportJson(rows, '2026-11-27T10:00:00.000Z')) as {
      findings: { result: string }[];
    };
    expect(valid(report)).toBe(true);
    report.findings[0]!.result = 'fine';
    expect(valid(report)).toBe(false);
  });
});
