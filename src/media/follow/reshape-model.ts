import type { io } from '@tensorflow/tfjs-core';

/** A model as its file has it. */
export interface StoredModel {
  modelTopology: { node: { op: string; attr: { shape?: { shape: { dim?: unknown } } } }[] };
  weightsManifest: { weights: io.WeightsManifestEntry[] }[];
  signature?: { inputs: Record<string, { tensorShape: { dim: unknown } }> };
}

/** Bytes of a weight's numbers, by how they are kept. */
const BYTES: Record<string, number> = { float32: 4, int32: 4, float16: 2, uint16: 2, uint8: 1, bool: 1 };

/** Bytes of one of a model's weights. */
export const weightBytes = ({
  shape,
  dtype,
  quantization,
}: StoredModel['weightsManifest'][number]['weights'][number]): number =>
  shape.reduce((product, side) => product * side, 1) * (BYTES[quantization?.dtype ?? dtype] ?? 4);

/** Sizes of enlarged maps are written among the weights, as constants of these names. */
const ENLARGES = /up_sampling2d(?:_(\d))?\/mul$/;

/**
 * A fully convolutional model for pictures of another size: the size that it takes, and those of the maps that it enlarges
 * on the way (written into `bytes`). Smaller pictures are looked at several times as fast.
 *
 * @param size multiples of 32.
 */
export function reshapeModel(
  model: StoredModel,
  bytes: ArrayBuffer,
  { width, height }: { width: number; height: number },
): StoredModel {
  const dim = [1, height, width, 3].map((side) => ({ size: String(side) }));
  const node = model.modelTopology.node.map((node) =>
    node.op === 'Placeholder' ? { ...node, attr: { ...node.attr, shape: { shape: { dim } } } } : node,
  );
  const view = new DataView(bytes);
  let offset = 0;
  for (const weight of model.weightsManifest.flatMap(({ weights }) => weights)) {
    const map = ENLARGES.exec(weight.name);
    if (map) {
      const part = 16 >> Number(map[1] ?? 0);
      view.setInt32(offset, height / part, true);
      view.setInt32(offset + 4, width / part, true);
    }
    offset += weightBytes(weight);
  }
  const inputs = Object.entries(model.signature?.inputs ?? {}).map(([name, input]) => [
    name,
    { ...input, tensorShape: { dim } },
  ]);
  return {
    ...model,
    modelTopology: { ...model.modelTopology, node },
    ...(model.signature && { signature: { ...model.signature, inputs: Object.fromEntries(inputs) } }),
  };
}
