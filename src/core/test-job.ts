import { type Job, newJob } from './job/job';
import type { Master } from './job/master';

/** A master for tests: 1920×1080 at 24000/1001 with stereo sound. */
export function testMaster(change: Partial<Master> = {}): Master {
  return {
    fingerprint: 'a'.repeat(64),
    fileName: 'edit.mp4',
    bytes: 1_000_000,
    container: 'MP4',
    picture: { width: 1920, height: 1080 },
    coded: { width: 1920, height: 1080 },
    rotation: 0,
    rate: { num: 24000, den: 1001 },
    constantRate: true,
    frames: 984,
    startSeconds: 0,
    video: { codec: 'avc', codecString: 'avc1.640028', bits: 12_000_000 },
    colour: { matrix: 'bt709', fullRange: false },
    audio: { codec: 'aac', sampleRate: 48000, channels: 2, bits: 128_000 },
    ...change,
  };
}

/** A job on that master, as it is when it is new. */
export function testJob(change: Partial<Master> = {}): Job {
  return newJob({ id: 'job-1', title: 'Edit', now: '2026-11-01T10:00:00.000Z', master: testMaster(change) });
}
