/** Exports of the WebAssembly module; see assembly/kernel.ts. */
export interface KernelModule {
  heapBase(): number;
  scalePlane(...args: number[]): void;
  splitPairs(src: number, u: number, v: number, pairs: number): void;
  narrowSamples(src: number, dst: number, count: number, bits: number): void;
  turnPlane(...args: number[]): void;
  convertColour(...args: number[]): void;
  mapColour(...args: number[]): void;
  rgbPlanes(...args: number[]): void;
  halvePlane(...args: number[]): void;
  boxPlane(...args: number[]): void;
  countBright(...args: number[]): void;
  countComb(src: number, stride: number, width: number, height: number, step: number): number;
  fieldDistance(a: number, b: number, stride: number, width: number, height: number, parity: number): number;
  deinterlacePlane(...args: number[]): void;
  samplePlane(...args: number[]): void;
  blendPlane(...args: number[]): void;
  sharpenPlane(...args: number[]): void;
}
