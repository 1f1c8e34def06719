import type { Doubt } from '@core/framing/following';
import type { SubjectKind } from '@core/follow/evidence';

/** Names of the kinds of subjects. */
export const KIND_WORDS: Record<SubjectKind, string> = {
  face: 'Face',
  person: 'Person',
  animal: 'Animal',
  vehicle: 'Vehicle',
  thing: 'Thing',
  motion: 'Something moving',
  drawn: 'Your box',
};

/** Why a moment needs a look. */
export const DOUBT_WORDS: Record<Doubt['why'], string> = {
  unseen: 'the subject is not seen',
  unsure: 'the subject is hard to make out',
  apart: 'the subjects are too far apart for one window',
  outside: 'the subject leaves the window',
};
