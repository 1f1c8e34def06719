import { bytesLabel, durationLabel } from '@core/figures/figures';
import type { ExportProgress } from '@state/export';

export const STAGES: Record<ExportProgress['stage'], string> = {
  waiting: 'Waiting for its turn',
  send: 'Sending the master to the server',
  fetch: 'Fetching the file from the server',
  export: 'Exporting',
  'read-back': 'Reading the file back',
  held: 'Waiting while something plays',
};

/** How far it is, how fast, and when it is done. @param frames of the clip. */
export function progressWords(
  { stage, done, total, speed, left }: ExportProgress,
  frames: number | undefined,
): string {
  const when = left !== null && Number.isFinite(left) ? `about ${durationLabel(left)} left` : '';
  if (stage === 'waiting') return [STAGES.waiting, when].filter(Boolean).join(', ');
  if (stage === 'held') return STAGES.held;
  if (stage === 'send' || stage === 'fetch')
    return `${STAGES[stage]}: ${bytesLabel(done)} of ${bytesLabel(total)}`;
  const fast = speed !== null && Number.isFinite(speed) ? `${speed.toFixed(0)} frames a second` : '';
  // Frames of several clips, of two passes, or that are made again say nothing to anybody.
  const share = total > 0 ? `${Math.floor((100 * done) / total)} %` : '';
  const far = total === frames ? `frame ${done} of ${total}` : share;
  const facts = [far, fast, when].filter(Boolean).join(', ');
  return facts ? `${STAGES[stage]}: ${facts}` : STAGES[stage];
}
