import { z } from 'zod';
import {
  bitrate,
  boundedNumber,
  byteCount,
  boundedCount,
  frameIndex,
  MAX_SIDE_PIXELS,
  measure,
  seconds,
} from '../figures/bounded';
import { shotStartSchema } from '../cut/shot';
import { storedRectSchema } from '../picture/size';

/** Where a shot was found to begin. */
const foundShotSchema = z.object({
  frame: frameIndex(),
  /** Null for the first. */
  start: shotStartSchema.nullable(),
  /** Its own live area, 0…1 of the picture as it is stored, where it differs from the file's. */
  live: storedRectSchema.nullable(),
});
export type FoundShot = z.infer<typeof foundShotSchema>;

const pauseSchema = z.object({ from: seconds(), to: seconds() });

/** Measurements of the sound. Levels of silence are null. */
const soundFactsSchema = z.object({
  /** LUFS (EBU R 128). */
  integrated: measure().nullable(),
  /** Greatest short-term loudness, LUFS. */
  loudest: measure().nullable(),
  /** dBTP and dBFS. */
  truePeak: measure().nullable(),
  samplePeak: measure().nullable(),
  /** Short-term loudness each second of the sound, LUFS. */
  shortTerm: z.array(measure().nullable()),
  /**
   * Loudness of each tenth of a second from the first frame on by itself, LUFS; more than two channels are measured as
   * clips have them. Not there in a pass of an earlier version.
   */
  steps: z.array(measure().nullable()).optional(),
  /** Seconds from the master's first frame. */
  pauses: z.array(pauseSchema),
});
export type SoundFacts = z.infer<typeof soundFactsSchema>;

/** Small pictures of a master on sheets: `every[level]` frames apart. */
export const STRIP = { every: [12, 48, 192, 768], tileHeight: 54, across: 8, down: 8 } as const;

/** Everything that one look at a whole master found. Stored beside its proxy. */
export const passSchema = z.object({
  schemaVersion: z.literal(1),
  fingerprint: z.string(),
  /** Video bits of each second. */
  bitsBySecond: z.array(bitrate()),
  shots: z.array(foundShotSchema).min(1),
  /** Over the whole file, 0…1 of the picture as it is stored; null where there are no bars. */
  live: storedRectSchema.nullable(),
  liveConfidence: measure(),
  /** Share of frames that comb, and whether the top field comes first; null where too little moves to tell. */
  combed: measure(),
  topFirst: z.boolean().nullable(),
  /** Mean movement of each second, in grey levels. */
  motion: z.array(measure()),
  /** The track that `sound` was measured of, null for silence; a pass of an earlier version does not tell. */
  soundTrack: boundedCount().nullable().optional(),
  sound: soundFactsSchema.nullable(),
  /** Levels of the sound tracks that no clip takes, in the file's order; null for one that cannot be decoded. */
  otherTracks: z.array(soundFactsSchema.pick({ integrated: true, truePeak: true }).nullable()).default([]),
  proxy: z.object({
    width: boundedNumber(0, MAX_SIDE_PIXELS),
    height: boundedNumber(0, MAX_SIDE_PIXELS),
    bytes: byteCount(),
  }),
  grey: z.object({
    width: boundedNumber(0, MAX_SIDE_PIXELS),
    height: boundedNumber(0, MAX_SIDE_PIXELS),
    frames: frameIndex(),
  }),
  strip: z.object({
    tileWidth: boundedNumber(0, MAX_SIDE_PIXELS),
    tileHeight: boundedNumber(0, MAX_SIDE_PIXELS),
  }),
});
export type AnalysisResult = z.infer<typeof passSchema>;

/**
 * Tells whether an analysis heard the sound track that a master uses: another job may use another track of
 * the same file.
 */
export const hasMeasuredSound = (
  pass: AnalysisResult,
  { soundTrack }: { soundTrack: number | null },
): boolean => pass.soundTrack === undefined || pass.soundTrack === soundTrack;

/** Names of what a pass stores, by the master's fingerprint. */
export const passNames = (fingerprint: string) => ({
  facts: `${fingerprint}.json`,
  proxy: `${fingerprint}.mp4`,
  grey: `${fingerprint}.grey`,
  wave: `${fingerprint}.wave`,
  evidence: `${fingerprint}.follow.json`,
  speech: `${fingerprint}.speech.json`,
  sheet: (level: number, index: number) => `${fingerprint}-strip-${level}-${index}.jpg`,
});
