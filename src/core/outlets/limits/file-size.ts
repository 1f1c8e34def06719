import { byteCount } from '../../figures/bounded';
import { bytesLabel } from '../../figures/figures';
import { numberField } from './field';
import { declareLimit } from './limit';

/** Judges the bytes of a whole file. */
export const judgeFileSize = (bytes: number, { mostBytes }: { mostBytes: number }): 'over' | null =>
  bytes > mostBytes ? 'over' : null;

/** Limit on the bytes of a file. */
export const fileSizeLimit = declareLimit({
  name: 'file-size',
  shape: { mostBytes: byteCount(1) },
  plain: { mostBytes: 1e12 },
  section: 'File and picture',
  fields: [{ path: 'mostBytes', label: 'Largest file', as: numberField('MB', 1e6) }],
  refuseFile: ({ bytes }, placement) =>
    judgeFileSize(bytes, placement) &&
    `The file has ${bytesLabel(bytes)}; the cap is ${bytesLabel(placement.mostBytes)}.`,
});
