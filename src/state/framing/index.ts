/** Public face of the framing bench: follow subjects, and watch what is worked on. */
export { type Mode, type Panel, useFramingUi } from './bench';
export { forgetEvidence, loadEvidence, useEvidence } from './evidence';
export {
  endFollowing,
  followDrawn,
  followFramings,
  type FollowNote,
  noteKey,
  stopFollowing,
  useFollow,
} from './follow';
