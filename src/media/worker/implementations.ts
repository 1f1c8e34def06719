import { type Trouble, toTrouble } from '@core/trouble/trouble';
import type { TaskContext } from './serve-task';
import type { ProgressOf, RequestOf, ResultOf, TaskName } from './task-table';

/** The worker's side of a task. */
export interface Implementation<Name extends TaskName> {
  /** Loads the function that does it, when its worker starts: no worker reads another's code. */
  load(): Promise<
    (
      request: RequestOf<Name>,
      context: TaskContext<ProgressOf<Name>>,
    ) => ResultOf<Name> | Promise<ResultOf<Name>>
  >;
  /** Turns an error of it into a trouble for people. */
  troubleOf(error: unknown, request: RequestOf<Name>): Trouble;
}

const damagedSource = (error: unknown, { source }: { source: { fileName: string } }) =>
  toTrouble(error, 'damaged', { file: source.fileName });
const exportFailed = (error: unknown) => toTrouble(error, 'export-failed', {});
const workerEnded = (error: unknown) => toTrouble(error, 'worker-ended', {});

/** The worker's side of every task. */
export const IMPLEMENTATIONS: { [Name in TaskName]: Implementation<Name> } = {
  'bring-in': {
    load: async () => (await import('../read/bring-in-task')).bringInFile,
    troubleOf: (error, { file }) => toTrouble(error, 'bring-in-failed', { file: file.name }),
  },
  export: {
    load: async () => (await import('../export/export-task')).exportClips,
    troubleOf: exportFailed,
  },
  'size-trial': {
    load: async () => (await import('../export/size-trial-task')).trySizes,
    troubleOf: exportFailed,
  },
  'rate-trial': {
    load: async () => (await import('../trial/rate-trial-task')).tryRates,
    troubleOf: exportFailed,
  },
  'read-back': {
    load: async () => (await import('../export/read-back-task')).readBack,
    troubleOf: exportFailed,
  },
  returned: {
    load: async () => (await import('../returned/returned-task')).lookAtReturned,
    troubleOf: (error, { file }) => toTrouble(error, 'damaged', { file: file.name }),
  },
  pass: {
    load: async () => (await import('../pass/pass-task')).passOver,
    troubleOf: damagedSource,
  },
  pack: {
    load: async () => (await import('../archive/pack-task')).packFiles,
    troubleOf: (error) => toTrouble(error, 'save-failed', {}),
  },
  unpack: {
    load: async () => (await import('../archive/unpack-task')).unpackJob,
    troubleOf: (error, { file }) => toTrouble(error, 'job-file', { file: file.name }),
  },
  speech: {
    load: async () => (await import('../speech/speech-task')).findSpeech,
    troubleOf: damagedSource,
  },
  captions: {
    load: async () => (await import('../words/captions-task')).readCaptionsFile,
    troubleOf: workerEnded,
  },
  script: {
    load: async () => (await import('../words/script-task')).layScriptOnSpeech,
    troubleOf: workerEnded,
  },
  cover: {
    load: async () => (await import('../export/cover-task')).makeCover,
    troubleOf: exportFailed,
  },
  font: {
    load: async () => (await import('../words/check-font')).keepFont,
    troubleOf: (error, { file }) => toTrouble(error, 'not-font', { file: file.name }),
  },
  contrast: {
    load: async () => (await import('../words/contrast-task')).measureContrast,
    troubleOf: workerEnded,
  },
  'grey-looks': {
    load: async () => (await import('../pass/grey-looks')).lookAtGreys,
    troubleOf: workerEnded,
  },
  follow: {
    load: async () => (await import('../follow/evidence-task')).gatherEvidence,
    troubleOf: damagedSource,
  },
  'follow-box': {
    load: async () => (await import('../follow/box-task')).followBox,
    troubleOf: damagedSource,
  },
  'follow-path': {
    load: async () => (await import('../follow/path-task')).findPaths,
    troubleOf: workerEnded,
  },
  stills: {
    load: async () => (await import('../play/stills-task')).makeStills,
    troubleOf: damagedSource,
  },
};
