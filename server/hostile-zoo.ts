import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { makeClip } from '../tests/make-clip';
import { seeded } from '../tests/soak';

/** A file that was made to do harm. */
export interface HostileFile {
  name: string;
  bytes: Buffer;
}

const folder = mkdtempSync(path.join(tmpdir(), 'hostile-'));
const text = (name: string, words: string): HostileFile => ({ name, bytes: Buffer.from(words) });

/** A film of the machine's own that nothing may hand out. */
const secretFilm = (): string => makeClip('secret.mp4', { size: '1080x1920', seconds: 1 });

function makeFile(name: string, args: string[]): Buffer {
  const file = path.join(folder, name);
  execFileSync('ffmpeg', ['-y', '-v', 'error', ...args, file]);
  return readFileSync(file);
}

/** Lists that name other files, in every form that a reader might follow. */
function playlists(secret: string): HostileFile[] {
  const hls = (uri: string, more = '') =>
    `#EXTM3U\n#EXT-X-VERSION:3\n#EXT-X-TARGETDURATION:2\n${more}#EXTINF:1,\n${uri}\n#EXT-X-ENDLIST\n`;
  const far = 'http://127.0.0.1:9/never.ts';
  return [
    text('playlist of an absolute path', hls(secret)),
    text('playlist of a file address', hls(`file://${secret}`)),
    text('playlist of a relative path', hls('../../secret.mp4')),
    text('playlist of an address that never answers', hls(far)),
    text('playlist of a joined address', hls(`concat:${secret}|${secret}`)),
    text('playlist of a key elsewhere', hls(secret, `#EXT-X-KEY:METHOD=AES-128,URI="${far}"\n`)),
    text('playlist of a start elsewhere', hls(secret, `#EXT-X-MAP:URI="${secret}"\n`)),
    text('playlist of playlists', `#EXTM3U\n#EXT-X-STREAM-INF:BANDWIDTH=1\n${secret}\n`),
    text('endless playlist', hls(secret).replace('#EXT-X-ENDLIST\n', '')),
    text('short list of one', `#EXTM3U\n${secret}\n`),
    text('list to join', `ffconcat version 1.0\nfile '${secret}'\n`),
    text('list to join, unsafe', `ffconcat version 1.0\nfile ${secret}\nfile ${far}\n`),
    text(
      'manifest',
      `<?xml version="1.0"?><MPD xmlns="urn:mpeg:dash:schema:mpd:2011" type="static"><Period><AdaptationSet mimeType="video/mp4"><Representation id="1" bandwidth="1"><BaseURL>file://${secret}</BaseURL></Representation></AdaptationSet></Period></MPD>`,
    ),
    text(
      'session description',
      `v=0\no=- 0 0 IN IP4 127.0.0.1\ns=x\nc=IN IP4 127.0.0.1\nt=0 0\nm=video 5004 RTP/AVP 96\na=rtpmap:96 H264/90000\n`,
    ),
    text('subtitles that name a film', `[Script Info]\nVideo File: ${secret}\n[Events]\n`),
    text('page', `<html><video src="file://${secret}"></video></html>`),
    text('drawing', `<svg xmlns="http://www.w3.org/2000/svg"><image href="file://${secret}"/></svg>`),
  ];
}

/** A box of an MP4 (ISO/IEC 14496-12, 4.2). */
function box(type: string, body: Buffer): Buffer {
  const head = Buffer.alloc(8);
  head.writeUInt32BE(8 + body.length);
  head.write(type, 4, 'latin1');
  return Buffer.concat([head, body]);
}

/** A copy whose numbers at some places after a box's name are others. */
function forgeBoxes(bytes: Buffer, type: string, changes: Record<number, number>): Buffer {
  const copy = Buffer.from(bytes);
  const found = copy.indexOf(type, 0, 'latin1');
  if (found < 0) throw new RangeError(`there is no ${type}`);
  for (const [offset, value] of Object.entries(changes))
    copy.writeUInt32BE(value, found + 4 + Number(offset));
  return copy;
}

/** A copy whose picture data is noise. */
function noisy(bytes: Buffer): Buffer {
  const copy = Buffer.from(bytes);
  const random = seeded(7);
  for (let offset = copy.indexOf('mdat', 0, 'latin1') + 4; offset < copy.length; offset++)
    copy[offset] = random() * 256;
  return copy;
}

/** Films whose index lies. */
function forgeries(fast: Buffer): HostileFile[] {
  const moov = fast.subarray(0, fast.indexOf('mdat', 0, 'latin1') - 4);
  const reference = box(
    'moov',
    box('rmra', box('rmda', box('rdrf', Buffer.from('\0\0\0\0url \0\0\0\x12file:///etc/hosts\0', 'latin1')))),
  );
  return [
    {
      name: 'two thousand million samples of one size',
      bytes: forgeBoxes(fast, 'stsz', { 4: 1, 8: 0x7fffffff }),
    },
    { name: 'a sample count past the table', bytes: forgeBoxes(fast, 'stsz', { 8: 2_000_000 }) },
    { name: 'one duration for two thousand million', bytes: forgeBoxes(fast, 'stts', { 8: 0x7fffffff }) },
    { name: 'no duration at all', bytes: forgeBoxes(fast, 'stts', { 12: 0 }) },
    { name: 'a data box past the end', bytes: forgeBoxes(fast, 'mdat', { [-8]: 0x7fffffff }) },
    { name: 'an index box past the end', bytes: forgeBoxes(fast, 'moov', { [-8]: 0x7fffffff }) },
    { name: 'header without one picture byte', bytes: Buffer.from(moov) },
    { name: 'noise with a right header', bytes: noisy(fast) },
    {
      name: 'film that refers to another',
      bytes: Buffer.concat([box('ftyp', Buffer.from('qt  \0\0\0\0qt  ')), reference]),
    },
    { name: 'a film type and nothing else', bytes: box('ftyp', Buffer.from('isom\0\0\x02\0isomavc1')) },
  ];
}

/** Uploads that were made to do harm, all of them small. */
export function hostileZoo(): HostileFile[] {
  const secret = secretFilm();
  const fast = readFileSync(
    makeClip('fast.mp4', { size: '1080x1920', seconds: 1, output: ['-movflags', '+faststart'] }),
  );
  const cuts = [0.02, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.88];
  const huge = ['-f', 'lavfi', '-i', 'color=c=gray:s=12000x12000:r=1:d=1', '-frames:v', '1'];
  const random = seeded(3);
  const noise = Buffer.from(Array.from({ length: 60_000 }, () => random() * 256));
  return [
    ...playlists(secret),
    ...forgeries(fast),
    ...cuts.map((share) => ({
      name: `cut off at ${Math.round(share * 100)} %`,
      bytes: fast.subarray(0, Math.floor(fast.length * share)),
    })),
    { name: 'picture of 12,000 × 12,000', bytes: makeFile('huge.png', huge) },
    { name: 'picture of 12,000 × 12,000 in a film', bytes: makeFile('huge.mov', [...huge, '-c:v', 'png']) },
    { name: 'noise', bytes: noise },
    { name: 'noise after a Matroska mark', bytes: Buffer.concat([Buffer.from('1a45dfa3', 'hex'), noise]) },
    { name: 'archive before a film', bytes: Buffer.concat([Buffer.from('PK\x03\x04'), fast]) },
    { name: 'page before a film', bytes: Buffer.concat([Buffer.from('<html><body>'), fast.subarray(12)]) },
    { name: 'one byte', bytes: Buffer.from([0]) },
  ];
}
