import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { postWordsSchema } from '../../src/core/outlets/post-form';
import type { PostOrder } from '../../src/core/posting/post-order';
import { createId } from '../store/create-id';
import { openDatabase } from '../store/database';
import { PostingRecords, toPublicPost } from './posting-records';

const words = postWordsSchema.parse({
  ...{ placement: 'short', title: 'Kites', description: '', tags: [], audience: 'public', cover: 'AAAA' },
});
const orderOf = (): PostOrder => ({
  ...{ id: createId(), upload: createId(), fileName: 'a.mp4', outlet: 'verrow', account: createId() },
  ...{ words, when: null },
});
const folder = () => mkdtempSync(path.join(tmpdir(), 'records-'));

describe('the cover of a post', () => {
  it('is kept beside its record, and changes where that is asked for alone', () => {
    const records = new PostingRecords(openDatabase(folder()));
    const { id } = records.add(orderOf(), 'visitor', { bytes: 1 });
    expect(records.find(id)?.words).toEqual({ ...words, cover: null });
    expect(records.findCover(id)).toBe('AAAA');
    expect(toPublicPost(records.of('visitor')[0]!).words.title).toBe('Kites');
    expect(records.change(id, { words: { ...words, title: 'Other', cover: null } })?.words.title).toBe(
      'Other',
    );
    expect(records.findCover(id)).toBe('AAAA');
    expect(records.change(id, { cover: 'BBBB' })?.words.cover).toBeNull();
    expect(records.findCover(id)).toBe('BBBB');
    records.change(id, { cover: null });
    expect(records.findCover(id)).toBeNull();
    expect(records.findCover(createId())).toBeNull();
  });

  it('is taken out of records that an earlier server wrote', () => {
    const data = folder();
    const before = openDatabase(data);
    const { id } = new PostingRecords(before).add(orderOf(), 'visitor', { bytes: 1 });
    before.exec(
      `update postings set asked = json_set(asked, '$.words.cover', 'AAAA'); alter table postings drop column cover;
       alter table uploads drop column folder;       pragma user_version = 6;`,
    );
    before.close();
    const records = new PostingRecords(openDatabase(data));
    expect(records.find(id)?.words.cover).toBeNull();
    expect(records.findCover(id)).toBe('AAAA');
  });
});
