/** Bytes for people, in powers of ten as disks and outlets count. */
export function bytesLabel(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  if (bytes < 1e6) return `${Math.round(bytes / 1000)} kB`;
  return bytes < 1e9 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(2)} GB`;
}

/** A share for people: 0.256 is `26 %`. */
export const percent = (share: number, places = 0): string => `${(share * 100).toFixed(places)} %`;

/** Seconds for people; minutes where there are many. */
export const secondsLabel = (seconds: number): string =>
  seconds < 600 ? `${seconds} s` : `${Number((seconds / 60).toFixed(1))} min`;

/** Bits a second for people. */
export function bitsLabel(bits: number): string {
  return bits < 1e6 ? `${Math.round(bits / 1000)} kb/s` : `${(bits / 1e6).toFixed(1)} Mb/s`;
}

/** How long something takes, for people: `42 s`, `3 min 5 s`, `2 h 10 min`. */
export function durationLabel(seconds: number): string {
  const whole = Math.ceil(seconds);
  if (whole < 90) return `${whole} s`;
  if (whole >= 7200) return `${Math.floor(whole / 3600)} h ${Math.floor((whole % 3600) / 60)} min`;
  return `${Math.floor(whole / 60)} min ${whole % 60} s`;
}

/** A count with its noun: `1 shot`, `3 shots`. @param plural where it is not the singular with an s. */
export const formatCount = (count: number, singular: string, plural = `${singular}s`): string =>
  `${count} ${count === 1 ? singular : plural}`;
