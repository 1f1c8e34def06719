/** Public face of masters: what is known of their files, and their conversion. */
export { cancelConversion, canConvert, convertFile, useConvert } from './convert';
export {
  ensurePasses,
  forgetPass,
  selectPass,
  getPass,
  runPassAgain,
  stopPass,
  storedPass,
  takeShots,
  usePasses,
} from './passes';
export {
  ensureSpeech,
  forgetSpeech,
  seekSpeech,
  selectSpeech,
  type SpeechState,
  stopSpeech,
  useSpeech,
} from './speech';
