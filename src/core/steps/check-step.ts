import { listBlockingFindings } from '../check/check';
import type { Severity } from '../check/rule';
import { formatCount } from '../figures/figures';
import { activeClip } from '../job/job';
import type { StepKind } from './step';

export const checkStep: StepKind = {
  title: 'Check',
  stand({ job, findings }) {
    if (!findings) return { summary: 'Being checked', standing: 'unknown' };
    const of = (severity: Severity) => findings.filter((finding) => finding.severity === severity).length;
    const stops = listBlockingFindings(findings, activeClip(job.edit), 'post').length;
    const parts = [
      stops > 0 ? formatCount(stops, 'stop', 'stops') : '',
      of('warn') > 0 ? formatCount(of('warn'), 'warning', 'warnings') : '',
      of('unknown') > 0 ? `${of('unknown')} not known yet` : '',
      of('note') > 0 ? formatCount(of('note'), 'note', 'notes') : '',
      `${of('pass')} passed`,
    ];
    const standing = stops > 0 ? 'stop' : of('warn') > 0 ? 'warn' : of('unknown') > 0 ? 'unknown' : 'pass';
    return { summary: parts.filter(Boolean).join(', '), standing };
  },
};
