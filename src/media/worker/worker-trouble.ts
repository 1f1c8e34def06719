import { TroubleError } from '@core/trouble/trouble';

/** Says what an `error` event of a worker means: it broke, or its code did not come. Only code that runs has a message. */
export const workerTrouble = ({ message }: Partial<Pick<ErrorEvent, 'message'>>): TroubleError =>
  message === undefined
    ? new TroubleError('worker-code', { detail: 'it did not come' })
    : new TroubleError('worker-ended', { detail: message || 'no reason was given' });
