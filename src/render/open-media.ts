import {
  ADTS,
  BlobSource,
  FilePathSource,
  FLAC,
  Input,
  type InputFormat,
  MATROSKA,
  MP3,
  MP4,
  MPEG_TS,
  OGG,
  QTFF,
  WAVE,
  WEBM,
} from 'mediabunny';

/** Containers that hold all of their media. Playlists are left out: they name other files, which a reader would open. */
const CONTAINERS: InputFormat[] = [MP4, QTFF, MATROSKA, WEBM, MPEG_TS, WAVE, OGG, FLAC, MP3, ADTS];

/**
 * Opens a media file: the only place in the browser, on the server and on workers that may (a lint rule holds it).
 * The caller disposes of the input.
 *
 * @param file its bytes, or on Node its absolute path.
 */
export function openMedia(file: Blob | string): Input {
  const source = typeof file === 'string' ? new FilePathSource(file) : new BlobSource(file);
  return new Input({ source, formats: CONTAINERS });
}
