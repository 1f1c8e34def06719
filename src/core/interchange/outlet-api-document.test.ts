import { readFileSync } from 'node:fs';
import path from 'node:path';
import Ajv from 'ajv/dist/2020';
import { parse } from 'yaml';
import { postFormSchema } from '../outlets/post-form';
import { outletApiDocument } from './outlet-api-document';

const published = path.resolve(__dirname, '../../../docs/outlet-api.yaml');

describe('the interface of an outlet', () => {
  it('is published as it is', () => {
    expect(parse(readFileSync(published, 'utf8'))).toEqual(JSON.parse(JSON.stringify(outletApiDocument())));
  });

  it('has schemas that a validator from elsewhere reads, and that take what is sent', () => {
    const { PostForm, Post } = outletApiDocument().components.schemas;
    const ajv = new Ajv({ strict: false, validateFormats: false });
    const words = { placement: 'short', title: 'Kites', description: '', tags: [], audience: 'private' };
    const form = postFormSchema.parse({ ...words, upload: 'f'.repeat(32) });
    const takes = ajv.compile(PostForm);
    expect([takes(form), takes.errors]).toEqual([true, null]);
    expect(takes({ ...form, audience: 'everybody' })).toBe(false);
    const stands = ajv.compile(Post);
    expect(stands({ id: 'x', state: 'refused', reasons: ['Too long.'] })).toBe(true);
    expect(stands({ id: 'x', state: 'refused', reasons: [] })).toBe(false);
  });
});
