/** Public face of words on the picture: captions, styles, fonts and their bench. */
export { captionsFile, captionsName, type OpenCaptions, openCaptions } from './caption-files';
export { useContrast } from './contrast';
export { addFont, dropFont, useFontBook, useFontList } from './fonts';
export { layScriptOnClip, stopScript, useScript } from './script';
export { textStyles } from './text-styles';
export { tagSets, templates } from './word-presets';
export {
  BLOCK_PANELS,
  type BlockPanel,
  CAPTION_PANELS,
  type CaptionPanel,
  type TextDraft,
  useWordsBench,
  WORDS_WORK,
  type WordsWork,
} from './words-bench';
