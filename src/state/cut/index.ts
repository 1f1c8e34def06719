/** Public face of cuts: clips, lists of cuts, and fits to a length. */
export {
  addClip,
  chooseClip,
  clipSeconds,
  proposeDivisions,
  removeClip,
  renameClip,
  splitIntoParts,
} from './clips';
export { listFile, type ListUse, type OpenList, openList, shotListFile, takeList } from './cut-lists';
export { proposeFits } from './fits';
