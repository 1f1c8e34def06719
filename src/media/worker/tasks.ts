import { type TaskCallbacks, runTask } from './run-task';
import type { ProgressOf, RequestOf, ResultOf, TaskName } from './task-table';
import { workerUrls } from './worker-urls';

/** Gives a task as its callers ask for it. All of them throw TroubleError. */
const taskNamed =
  <Name extends TaskName>(name: Name) =>
  (request: RequestOf<Name>, following: TaskCallbacks<ProgressOf<Name>> = {}): Promise<ResultOf<Name>> =>
    runTask(name, request, following);

/** Copies a file in and gives its facts. */
export const bringInFile = taskNamed('bring-in');
/** Makes a clip on one canvas or several in one go. */
export const makeExport = taskNamed('export');
/** Encodes pieces of a clip, keeps nothing, and tells the video bytes of each. */
export const tryExportSizes = taskNamed('size-trial');
/** Makes pieces of a clip at several rates and looks at what a viewer would get. */
export const tryExportRates = taskNamed('rate-trial');
/** Reads a finished clip back. */
export const proveExport = taskNamed('read-back');
/** Holds a file that came back against the export that left. */
export const lookAtReturnedFile = taskNamed('returned');
/** Puts texts and stored files into one stored file, and gives its bytes. */
export const packStored = taskNamed('pack');
/** Takes the masters of a packed job in, and gives the job. */
export const unpackJobFile = taskNamed('unpack');
/** Finds where somebody speaks in a master. */
export const findSpeech = taskNamed('speech');
/** Reads a file of captions, whatever is wrong with it. */
export const readCaptions = taskNamed('captions');
/** Lays a script on speech. */
export const layScript = taskNamed('script');
/** Draws a still of a clip. */
export const makeCover = taskNamed('cover');
/** Checks a file and keeps it as a font of the person's own. */
export const keepFont = taskNamed('font');
/** Measures how little words stand out from the pixels behind them, and whether they have room. */
export const measureContrast = taskNamed('contrast');
/** Looks at the grey copies of some frames of a master. */
export const lookAtGreys = taskNamed('grey-looks');
/** Looks for subjects in ranges of a master; each is told as soon as it was looked at. */
export const gatherEvidence = taskNamed('follow');
/** Follows a box that was drawn through its shot. */
export const followDrawnBox = taskNamed('follow-box');
/** Finds the paths that keep the subjects of shots in view; null for one that has none. */
export const findPaths = taskNamed('follow-path');
/** Makes small pictures of frames, each told as soon as it is there. */
export const makeStills = taskNamed('stills');

/** Looks at a whole master once. */
export const passOverMaster = (
  request: Omit<RequestOf<'pass'>, 'laneUrl'>,
  following: TaskCallbacks<ProgressOf<'pass'>>,
): Promise<ResultOf<'pass'>> => runTask('pass', { ...request, laneUrl: workerUrls['pass-lane'] }, following);
