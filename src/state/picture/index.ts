/** Public face of pictures of masters and plans: stills, strips and covers. */
export { toBase64, coverFile, getCover, coverSize, coverToSend, proposeCovers, smallCover } from './covers';
export { planStill, listSharpenedPlans, stillFile } from './plan-stills';
export { forgetStills, renderStill, useStills } from './stills';
export { type Tile, useStrip, useWave } from './strip';
