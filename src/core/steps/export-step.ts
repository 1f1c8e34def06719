import { formatCount } from '../figures/figures';
import { activeClip } from '../job/job';
import { isUnfinished } from '../job/records';
import { computeSignature } from '../job/signature';
import type { StepKind } from './step';

export const exportStep: StepKind = {
  title: 'Export',
  stand({ job: { edit, exports: all } }) {
    const exports = all.filter((record) => record.clip === activeClip(edit).id);
    const signature = computeSignature(edit);
    const current = exports.find((record) => record.signature === signature);
    const done = exports.filter((record) => record.state === 'done').length;
    if (current?.state === 'done') {
      return current.proof?.pass === true
        ? { summary: 'Made and read back', standing: 'pass' }
        : { summary: 'Made, but the read-back found a fault', standing: 'warn' };
    }
    if (current && isUnfinished(current)) {
      return { summary: 'Under way', standing: 'note' };
    }
    if (current) return { summary: 'Stopped before it was done', standing: 'warn' };
    const earlier = `${formatCount(done, 'file', 'files')}, none of the clip as it is now`;
    return { summary: done > 0 ? earlier : 'Nothing yet', standing: 'open' };
  },
};
