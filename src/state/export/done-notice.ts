import type { ExportRecord } from '@core/job/records';
import { setting } from '../setting';

/** Setting: the person is told of finished exports while another page or program is in front. */
export const doneNotice = setting<'on' | 'off'>('done-notice', 'off', (stored) =>
  stored === 'on' || stored === 'off' ? stored : null,
);

/** Tells whether this browser has notices at all, and whether the person forbade them for this page. */
export const noticeState = (): NotificationPermission | 'missing' =>
  'Notification' in globalThis ? Notification.permission : 'missing';

/** Turns notices on or off; asks for leave where that was not given yet. @returns whether they are on. */
export async function setDoneNotice(on: boolean): Promise<boolean> {
  const may = on && noticeState() === 'default' ? await Notification.requestPermission() : noticeState();
  const value = on && may === 'granted' ? 'on' : 'off';
  doneNotice.choose(value);
  return value === 'on';
}

/** Tells of an export that is done, where the person looks elsewhere. */
export function tellDone({ fileName }: Pick<ExportRecord, 'fileName'>, left: number): void {
  if (doneNotice.use.getState().value !== 'on' || noticeState() !== 'granted' || !document.hidden) return;
  const body = left > 0 ? `${left} more in the queue.` : 'Nothing is left in the queue.';
  const notice = new Notification(`${fileName} is ready`, { body, tag: 'gusset-done' });
  notice.onclick = () => {
    window.focus();
    notice.close();
  };
}
