/** Public face of the player: put a job on it, show, play and watch it. */
import { JobPlayer } from './job-player';

/** The player of the page. Whoever leaves a job disposes of what it holds. */
export const player = new JobPlayer();

export { canvasView, type Quality, type Speed, type View } from '@media/play/player-protocol';
export { type Draft, withDraft, usePlayer } from './player-store';
export type { WordsDraft } from './preview-plans';
