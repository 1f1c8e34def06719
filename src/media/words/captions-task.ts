import type { CaptionFile } from '@core/words/files/caption-file';
import { readCaptions } from '@core/words/files/read-captions';

/** Reads a file of captions, whatever is wrong with it. */
export const readCaptionsFile = ({ bytes }: { bytes: Uint8Array }): CaptionFile => readCaptions(bytes);
