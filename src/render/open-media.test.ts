import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { UnsupportedInputFormatError } from 'mediabunny';
import { makeClip } from '../../tests/make-clip';
import { openMedia } from './open-media';

/** A playlist as RFC 8216 has it, which names a film beside it by its path. */
function playlistOf(film: string): string {
  const lines = [
    '#EXTM3U',
    '#EXT-X-VERSION:3',
    '#EXT-X-TARGETDURATION:2',
    '#EXTINF:1.0,',
    film,
    '#EXT-X-ENDLIST',
  ];
  return `${lines.join('\n')}\n`;
}

describe('a playlist', () => {
  const film = makeClip('listed.ts', { size: '320x180', seconds: 1 });
  const text = playlistOf(film);
  const file = path.join(path.dirname(film), 'list.m3u8');
  writeFileSync(file, text);

  it.each([
    ['on the disk', file],
    ['in the browser', new Blob([text], { type: 'application/vnd.apple.mpegurl' })],
  ])('is no media file: what it names is not opened (%s)', async (_where, playlist) => {
    const input = openMedia(playlist);
    await expect(input.getPrimaryVideoTrack()).rejects.toThrow(UnsupportedInputFormatError);
    input.dispose();
  });

  it('names a film that can be read by itself', async () => {
    const input = openMedia(film);
    expect(await (await input.getPrimaryVideoTrack())?.getCodedWidth()).toBe(320);
    input.dispose();
  });
});
