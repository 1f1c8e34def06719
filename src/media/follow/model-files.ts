import { keptFiles } from '../store/kept-files';
import { type StoredModel, weightBytes } from './reshape-model';

/** A model's two files. */
export interface ModelFiles {
  stored: StoredModel;
  weights: ArrayBuffer;
}

/** The files of a detector's model, whole. @throws TroubleError `server-down`, `server-answer`. */
export const modelFiles = (name: string): Promise<ModelFiles> =>
  keptFiles([`/models/${name}.json`, `/models/${name}.bin`], 'follow', ([json, weights]) => {
    const stored = JSON.parse(new TextDecoder().decode(json)) as StoredModel;
    const whole = weights?.byteLength === countBytes(stored);
    return Promise.resolve(whole && weights ? { stored, weights } : null);
  });

const countBytes = ({ weightsManifest }: StoredModel): number =>
  weightsManifest.flatMap(({ weights }) => weights).reduce((sum, weight) => sum + weightBytes(weight), 0);
