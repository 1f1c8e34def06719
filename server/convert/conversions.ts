import { readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import type { Conversion, ConversionFault } from '../../src/core/convert/protocol';
import type { RandomId } from '../../src/core/figures/random-id';
import { filmInput, MASTER_CONTAINERS } from '../programs/media-args';
import { hasWholeBoxes } from '../programs/boxes';
import { listPictures, probeIndex } from '../programs/probe';
import { ProgramError, type Programs } from '../programs/programs';
import { whenWritable } from '../store/when-writable';
import { freeBytes } from '../uploads/room';
import type { UploadEndpoint } from '../uploads/upload-endpoint';
import type { ConversionRecords } from './conversion-records';

/** Longest that a conversion takes, in seconds: two hours of film on a slow machine. */
const MAX_SECONDS = 6 * 3600;
/** Address space of a conversion, in bytes: the encoder's look-ahead of 4K pictures. */
const MEMORY = 8e9;
/** Largest copy, in bytes. */
const MAX_BYTES = 64e9;
/** Room that a conversion wants before it begins: a light source may grow by this much. */
const GROWTH = 4;
/** Containers made of boxes. */
const BOXED = new Set(['mp4', 'mov']);
/** A film of which this share of the pictures is there, or was decoded, is whole: old tapes lose a few. */
const WHOLE = 0.9;

/**
 * A copy in H.264 that keeps size, rate and timing: every frame at its own time, near lossless, key frames so close
 * that editing it costs nothing that is seen; sound as AAC.
 */
const toArgs = (from: string, to: string, pixels: string): string[] => [
  ...filmInput(MASTER_CONTAINERS, from),
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '12'],
  ...[
    ...colourArgs(pixels),
    '-pix_fmt',
    'yuv420p',
    '-g',
    '48',
    '-fps_mode',
    'passthrough',
    '-enc_time_base',
    '-1',
  ],
  ...['-c:a', 'aac', '-b:a', '256k', '-movflags', '+faststart', '-f', 'mp4', '-progress', 'pipe:1', to],
];

/** Full range becomes limited; red, green and blue become BT.709; other matrices stay. @param pixels as ffmpeg names them. */
const colourArgs = (pixels: string): string[] =>
  /^(gbr|rgb|bgr|argb|abgr|0rgb|0bgr)/.test(pixels)
    ? ['-vf', 'scale=out_range=tv:out_color_matrix=bt709', '-color_range', 'tv', '-colorspace', 'bt709']
    : ['-vf', 'scale=out_range=tv', '-color_range', 'tv'];

/** A conversion that waits or runs in this process. */
interface RunningConversion {
  stop: AbortController;
  now: Conversion;
  /** Settles, never rejects, when it ended. */
  ended: Promise<void>;
}

/** Converts uploads that a browser cannot decode: recorded first, one at a time, read back before they are done. */
export class Conversions {
  private readonly active = new Map<string, RunningConversion>();

  constructor(
    private readonly records: ConversionRecords,
    private readonly door: UploadEndpoint,
    private readonly folder: string,
    /** Short work, and conversions themselves: the one never waits for the other. */
    private readonly looks: Programs,
    private readonly programs: Programs,
  ) {}

  getResultPath(id: RandomId): string {
    return path.join(this.folder, `${id}.mp4`);
  }

  /** Takes up what a server that ended left waiting. */
  resume(): void {
    for (const id of this.records.waiting()) this.start(id);
  }

  /** Where a conversion stands, or null where there is none. */
  find(id: string): Conversion | null {
    const active = this.active.get(id);
    if (active) return active.now;
    const record = this.records.find(id);
    if (record?.state === 'done') return { state: 'done', bytes: record.bytes };
    if (record?.state === 'failed') return { state: 'failed', fault: record.reason };
    return null;
  }

  /** Begins a conversion, or tells where the one of this upload stands. */
  begin(id: RandomId): Conversion {
    const known = this.find(id);
    if (known) return known;
    this.records.begin(id);
    return this.start(id).now;
  }

  /** Stops a conversion and forgets all of it. */
  async forget(id: RandomId): Promise<void> {
    const active = this.active.get(id);
    active?.stop.abort();
    await active?.ended;
    this.records.forget(id);
    await this.door.forget(id);
    await rm(this.getResultPath(id), { force: true });
  }

  /** Forgets what nobody fetched since a moment, and files that no record knows. */
  async sweep(before: number): Promise<void> {
    for (const id of this.records.madeBefore(before)) if (!this.active.has(id)) await this.forget(id);
    // Uploads that never came to a conversion.
    await this.door.sweep(before, (id) => this.active.has(id));
    for (const file of await readdir(this.folder)) {
      if (!this.find(file.replace(/\.mp4$/, ''))) await rm(path.join(this.folder, file), { force: true });
    }
  }

  private start(id: RandomId): RunningConversion {
    const stop = new AbortController();
    const active: RunningConversion = { stop, now: { state: 'queued' }, ended: Promise.resolve() };
    this.active.set(id, active);
    active.ended = this.convert(id, active)
      .catch((error: unknown) => console.error(error))
      .finally(() => this.active.delete(id));
    return active;
  }

  /** Converts, and records how it ended; what the server's own end stopped stays recorded as waiting. */
  private async convert(id: RandomId, active: RunningConversion): Promise<void> {
    try {
      const bytes = await this.make(id, active);
      await whenWritable(() => this.records.done(id, bytes));
      await this.door.forget(id);
    } catch (error) {
      await rm(this.getResultPath(id), { force: true }).catch(() => undefined);
      if (error instanceof ProgramError && error.reason === 'stopped') return;
      await whenWritable(() => this.records.failed(id, toFault(error)));
    }
  }

  private async make(id: RandomId, active: RunningConversion): Promise<number> {
    const { signal } = active.stop;
    const source = this.door.getFile(id);
    const listed = await this.list(source);
    const { size } = await stat(source);
    if ((await freeBytes(this.folder)) < size * GROWTH) throw new Fault('no-room');
    const result = this.getResultPath(id);
    await this.programs.run('ffmpeg', toArgs(source, result, listed.pixels), {
      limits: { seconds: MAX_SECONDS, memory: MEMORY, fileBytes: MAX_BYTES, outputBytes: Infinity },
      signal,
      onOut: (text) => {
        const micro = [...text.matchAll(/out_time_us=(\d+)/g)].pop()?.[1];
        const doneSeconds = micro ? Number(micro) / 1e6 : 0;
        active.now = { state: 'running', doneSeconds, totalSeconds: listed.seconds };
      },
    });
    return this.readBack(result, listed.frames);
  }

  /** The pictures that a source says it has. @throws Fault when they are not all there. */
  private async list(source: string): Promise<{ frames: number; seconds: number | null; pixels: string }> {
    const { container, video, seconds } = await probeIndex(this.looks, source, MASTER_CONTAINERS);
    if (!video?.time_base) throw new Fault('no-picture');
    if (BOXED.has(container) && !(await hasWholeBoxes(source))) throw new Fault('cut-off');
    const { stamps } = await listPictures(this.looks, source, MASTER_CONTAINERS, video.time_base);
    if (stamps.length === 0) throw new Fault('no-picture');
    if (stamps.length < (video.nb_frames ?? 0) * WHOLE) throw new Fault('cut-off');
    return { frames: stamps.length, seconds, pixels: video.pix_fmt ?? '' };
  }

  /** A full disk may leave a file that was never finished, and noise decodes to nearly nothing. */
  private async readBack(result: string, frames: number): Promise<number> {
    const { video } = await probeIndex(this.looks, result, MASTER_CONTAINERS);
    if (!video?.time_base) throw new Fault('broken');
    const { stamps } = await listPictures(this.looks, result, MASTER_CONTAINERS, video.time_base);
    if (stamps.length < frames * WHOLE) throw new Fault('unreadable');
    return (await stat(result)).size;
  }
}

/** A fault that is found here, and not by a program. */
class Fault extends Error {
  constructor(readonly fault: ConversionFault) {
    super(fault);
    this.name = 'Fault';
  }
}

function toFault(error: unknown): ConversionFault {
  if (error instanceof Fault) return error.fault;
  if (!(error instanceof ProgramError)) {
    console.error(error);
    return 'broken';
  }
  if (/no space left|file too large/i.test(error.said)) return 'no-room';
  if (error.reason === 'slow') return 'too-slow';
  return error.reason === 'busy' || error.reason === 'missing' ? 'busy' : 'unreadable';
}
