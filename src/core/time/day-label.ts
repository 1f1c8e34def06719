const DAY = 24 * 3600 * 1000;

const midnight = (date: Date): number =>
  new Date(date.getFullYear(), date.getMonth(), date.getDate()).getTime();

/** A moment as people say it from another: `today, 14:05`, `yesterday, 9:30`, `3 Nov 2026`. In local time. */
export function dayLabel(moment: Date, now: Date): string {
  const days = Math.round((midnight(now) - midnight(moment)) / DAY);
  if (days !== 0 && days !== 1) {
    return moment.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
  }
  const time = moment.toLocaleTimeString('en-GB', { hour: 'numeric', minute: '2-digit' });
  return `${days === 0 ? 'today' : 'yesterday'}, ${time}`;
}
