import type { AudioSampleSource, Output, VideoSampleSource } from 'mediabunny';
import type { ExportContainer } from '@core/render/container';
import type { RenderPlan } from '@core/render/plan';

/** One file to make: its plan, its container, its video bits a second, and the name it is stored under. */
export interface OutputRequest {
  name: string;
  container: ExportContainer;
  plan: RenderPlan;
  videoBits: number;
}

/** A file that streams into the private file system as it is made. */
export interface StoredFile {
  readonly output: Output;
  /** Of the file so far. */
  readonly bytes: number;
  /** Writes what is left; the file has no name yet. */
  finalize(): Promise<void>;
  /** Keeps the finished file under its name. */
  keep(): Promise<void>;
  /** Leaves nothing behind. */
  discard(): Promise<void>;
}

/** Where the pictures and the sound of one file go; nothing was written yet. */
interface OpenFile {
  file: StoredFile;
  picture: VideoSampleSource;
  /** Null for a file without sound. */
  sound: AudioSampleSource | null;
}

/** Makes files of one container, with the codecs that belong in it: one file of makers/ each. */
export interface Maker {
  /** @throws TroubleError `encoder-missing` when this browser cannot encode the canvas. */
  open(request: OutputRequest): Promise<OpenFile>;
}
