import { createHash } from 'node:crypto';
import { applyCommand } from '@core/job/commands/commands';
import { activeCanvas } from '@core/job/clip';
import { activeClip, type Job } from '@core/job/job';
import { testJob } from '@core/job/test-job';
import { SHIPPED_SHEETS } from '@core/outlets/shipped';
import { plainBlock } from '@core/words/text-block';
import { sendSources } from './render-sources';

const mockFiles = new Map<string, { arrayBuffer(): Promise<ArrayBuffer> }>();
jest.mock('@media/store/storage', () => ({
  storedFile: (folder: string, name: string) => Promise.resolve(mockFiles.get(`${folder}/${name}`) ?? null),
}));
const mockSent: string[] = [];
jest.mock('@media/send/upload', () => ({
  uploadFile: ({ key }: { key: string }) => Promise.resolve(mockSent.push(key) && `upload-of-${key}`),
}));
let mockThere: string[] = [];
const mockTaken: string[] = [];
jest.mock('../server', () => ({
  askJson(_server: unknown, path: string, _schema: unknown, { method }: { method?: string } = {}) {
    if (method === 'PUT') mockTaken.push(path.split('/').pop() ?? '');
    return Promise.resolve({ masters: mockThere });
  },
}));

const FONT = Uint8Array.of(0, 1, 0, 0, 7);
const fingerprint = createHash('sha256').update(FONT).digest('hex');
const OWN = `own-${fingerprint.slice(0, 16)}`;
const fileOf = (bytes: Uint8Array) => ({ arrayBuffer: () => Promise.resolve(bytes.slice().buffer) });

/** A job with words in a font of the person's own. */
function worded(): Job {
  const job = testJob({ frames: 200 });
  const block = plainBlock('words', 'Low tide');
  const blocks = [{ ...block, style: { ...block.style, family: OWN } }];
  return { ...job, edit: applyCommand(job.edit, { type: 'set-blocks', act: 'add', blocks }) };
}

function send(job: Job): Promise<void> {
  const { exports: _exports, posts: _posts, ...rest } = job;
  const clip = activeClip(job.edit);
  const asked = { job: rest, clip: clip.id, canvas: activeCanvas(clip).id, sheets: [...SHIPPED_SHEETS] };
  return sendSources(asked, { signal: new AbortController().signal, onProgress: () => undefined });
}

const job = worded();
const master = job.masters[0]!.fingerprint;
beforeEach(() => {
  mockFiles.clear();
  mockFiles.set(`masters/${master}`, fileOf(FONT)).set(`fonts/${OWN}.font`, fileOf(FONT));
  mockSent.length = mockTaken.length = 0;
  mockThere = [];
});

describe('what a clip is made of', () => {
  it('goes up once: its master, and a font of the person’s own', async () => {
    await send(job);
    expect(mockSent).toEqual([`render-${master}`, `render-${fingerprint}`]);
    expect(mockTaken).toEqual([master, fingerprint]);
    mockThere = [master, fingerprint];
    await send(job);
    expect(mockSent).toHaveLength(2);
  });

  it('is told where it is not here any more', async () => {
    mockFiles.delete(`fonts/${OWN}.font`);
    await expect(send(job)).rejects.toMatchObject({ trouble: { code: 'font-gone' } });
    mockFiles.clear();
    await expect(send(job)).rejects.toMatchObject({ trouble: { code: 'master-gone' } });
  });
});
