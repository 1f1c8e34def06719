import { formatCount } from '../figures/figures';
import { listSources } from '../job/job';
import { rateLabel } from '../time/frame-rate';
import type { StepKind } from './step';

export const masterStep: StepKind = {
  title: 'Master',
  stand({ job, problems }) {
    const warnings = problems.filter((problem) => problem.weight === 'warn').length;
    const [first] = listSources(job);
    const parts = [
      first ? `${first.picture.width}×${first.picture.height}, ${rateLabel(first.rate)} fps` : '',
      job.masters.length > 1 ? ` and ${job.masters.length - 1} more` : '',
      warnings > 0 ? `, ${formatCount(warnings, 'thing', 'things')} to look at` : '',
    ];
    return { summary: parts.join(''), standing: warnings > 0 ? 'warn' : 'pass' };
  },
};
