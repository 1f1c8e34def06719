import type { Master } from '@core/master/master';

/** A job with its masters in one file: a ZIP archive, nothing in it packed, since films do not get smaller. */
export const JOB_ENTRY = 'job.json';

/** Largest job text that is read from an archive, in bytes. */
export const MAX_JOB_BYTES = 50e6;

/** Where a master lies in the archive. */
export const masterEntry = ({ fingerprint }: Pick<Master, 'fingerprint'>): string => `masters/${fingerprint}`;
