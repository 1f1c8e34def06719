import { readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { makeClip, turnClip } from '../tests/make-clip';
import { atTheApp } from './app';
import { storedNames } from './stored-names';

const fileOf = (name: string, bytes: Uint8Array | string): string => {
  const file = path.join(tmpdir(), name);
  writeFileSync(file, bytes);
  return file;
};
const half = (file: string): Uint8Array => {
  const bytes = readFileSync(file);
  return bytes.subarray(0, bytes.length / 2);
};

describe('a file that cannot be used', () => {
  const here = atTheApp();

  it.each<[string, () => string, RegExp, RegExp]>([
    [
      'text renamed',
      () => fileOf('text.mp4', 'These are words, not pictures. '.repeat(200)),
      /not a video file that can be read/,
      /Bring in MP4, MOV, WebM or MKV/,
    ],
    ['an empty file', () => fileOf('empty.mp4', ''), /empty\.mp4 is empty/, /Export it again/],
    [
      'an MP4 cut off before its index',
      () => fileOf('half.mp4', half(makeClip('whole.mp4'))),
      /half\.mp4 ends before its picture does/,
      /Copy it again/,
    ],
    [
      'an MP4 cut off after its index',
      () => fileOf('half2.mp4', half(makeClip('fast.mp4', { output: ['-movflags', '+faststart'] }))),
      /half2\.mp4 ends before its picture does/,
      /Copy it again/,
    ],
    [
      'an MKV cut off',
      () => fileOf('half.mkv', half(makeClip('whole.mkv', { seconds: 6 }))),
      /half\.mkv ends before its picture does/,
      /Copy it again/,
    ],
    [
      'sound alone',
      () => makeClip('sound.mp4', { output: ['-vn'] }),
      /has sound but no picture/,
      /exported with its picture/,
    ],
    [
      'a codec that the browser lacks',
      () =>
        makeClip('hevc.mp4', {
          output: ['-c:v', 'libx265', '-tag:v', 'hvc1', '-x265-params', 'log-level=none'],
        }),
      /cannot decode H\.265/,
      /Export the edit as H\.264/,
    ],
    [
      'an old codec',
      () => makeClip('old.mp4', { output: ['-c:v', 'mpeg4'] }),
      /cannot decode/,
      /Export the edit as H\.264/,
    ],
  ])('%s: says what, why and what to do', async (_, make, what, todo) => {
    await here.visitor.pick(make());
    await here.visitor.sees(what);
    await here.visitor.sees(todo);
    await here.visitor.press('Close');
    await here.visitor.button('Bring in a video').waitFor();
  });

  it('leaves the list usable and nothing in storage', async () => {
    await here.visitor.sees('Kite Day at Windle Bay');
    expect(await storedNames(here.visitor.page, 'masters')).toEqual([]);
    expect(here.visitor.errors).toEqual([]);
  });

  it('a file larger than the free room is told apart', async () => {
    const session = await here.visitor.context.newCDPSession(here.visitor.page);
    await session.send('Storage.overrideQuotaForOrigin', { origin: here.server.origin, quotaSize: 50_000 });
    await here.visitor.pick(makeClip('large.mp4', { seconds: 3 }));
    await here.visitor.sees(/There is not enough room: .* is needed/);
    await session.send('Storage.overrideQuotaForOrigin', { origin: here.server.origin });
    await here.visitor.press('Close');
  });
});

describe('an unusual file', () => {
  const here = atTheApp();
  beforeEach(() => here.visitor.page.goto('/'));
  afterEach(() => expect(here.visitor.errors).toEqual([]));

  /** Exports what was brought in, with every stop overridden, and waits for its proof. */
  async function exported(): Promise<void> {
    await here.visitor.step('Export');
    await here.visitor.exportClip();
    await here.visitor.sees('Read back: as asked');
  }

  it.each<[string, Parameters<typeof makeClip>[1], RegExp[]]>([
    ['one-frame.mp4', { seconds: 0.04 }, [/^Length: 00:00:00:01/]],
    [
      'odd.mkv',
      {
        filter: 'format=yuv444p,scale=321:181,setsar=1',
        pixels: 'yuv444p',
        output: ['-profile:v', 'high444'],
      },
      [/^Size: 321×181/, /^Picture: H\.264 High 4:4:4/],
    ],
    [
      'silent.webm',
      { channels: 0, output: ['-c:v', 'libvpx-vp9', '-deadline', 'realtime'] },
      [/^Sound: none/, /^Picture: VP9/, /^File: WebM/],
    ],
    ['mono.mov', { channels: 1, sampleRate: 44100 }, [/^Sound: AAC 44\.1 kHz mono/, /^File: QuickTime/]],
    ['surround.mp4', { channels: 6 }, [/^Sound: AAC 48 kHz 6 channels/]],
    [
      'low-rate.mkv',
      { sampleRate: 22050, output: ['-c:a', 'libvorbis', '-ar', '22050'] },
      [/^Sound: Vorbis 22\.05 kHz stereo/],
    ],
    [
      'ten-bit.mp4',
      { pixels: 'yuv420p10le', output: ['-profile:v', 'high10'] },
      [/^Picture: H\.264 High 10/],
    ],
  ])('%s comes in with the right facts and comes out as asked', async (name, options, facts) => {
    await here.visitor.bringIn(makeClip(name, options));
    for (const fact of facts) await here.visitor.has('listitem', fact);
    await exported();
  });

  it('a picture turned by its flag stands upright, and comes out so', async () => {
    await here.visitor.bringIn(turnClip(makeClip('turned.mp4', { size: '180x320' })));
    await here.visitor.has('listitem', 'Size: 320×180');
    await exported();
  });
});

describe('a file', () => {
  const here = atTheApp();

  it('that is brought in twice is kept once, and told', async () => {
    const { visitor } = here;
    const clip = makeClip('twice.mp4');
    await visitor.bringIn(clip);
    await visitor.press('All jobs');
    await visitor.bringIn(clip);
    await visitor.press('All jobs');
    await visitor.sees('The same file is in another job.');
    await visitor.sees('twice (again)');
    expect(await storedNames(visitor.page, 'masters')).toHaveLength(1);
  });

  it('can be dropped on the page', async () => {
    const { visitor } = here;
    await visitor.page.goto('/');
    // Nobody drops a file on a page that is not there yet.
    await visitor.has('button', 'Bring in a video');
    const bytes = readFileSync(makeClip('dropped.mp4')).toString('base64');
    await visitor.page.evaluate((text) => {
      const data = new DataTransfer();
      const file = new File([Uint8Array.from(atob(text), (c) => c.charCodeAt(0))], 'dropped.mp4');
      data.items.add(file);
      window.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
    }, bytes);
    await visitor.page.waitForURL(/\/job\//);
    await visitor.sees('dropped');
    expect(visitor.errors).toEqual([]);
  });
});
