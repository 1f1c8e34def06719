import { audienceRule } from './rules/audience';
import { audioRule } from './rules/audio';
import { bakedInBarsRule } from './rules/baked-in-bars';
import { bitRateRule } from './rules/bit-rate';
import { captionsRule } from './rules/captions';
import { childrenRule } from './rules/children';
import { colourRule } from './rules/colour';
import { combingRule } from './rules/combing';
import { coverRule } from './rules/cover';
import { coverageRule } from './rules/coverage';
import { descriptionRule } from './rules/description';
import { enlargementRule } from './rules/enlargement';
import { evenRule } from './rules/even';
import { fileSizeRule } from './rules/file-size';
import { keyPhraseRule } from './rules/key-phrase';
import { lengthRule } from './rules/length';
import { levelRule } from './rules/level';
import { longVideoRule } from './rules/long-video';
import { loudnessRule } from './rules/loudness';
import { otherLimitsRule } from './rules/other-limits';
import { panesRule } from './rules/panes';
import { peakRule } from './rules/peak';
import { pixelAspectRule } from './rules/pixel-aspect';
import { rateRule } from './rules/rate';
import { ratioRule } from './rules/ratio';
import { sheetRule } from './rules/sheet';
import { sizeRule } from './rules/size';
import { soundFormatRule } from './rules/sound-format';
import { streamRule } from './rules/stream';
import { tagRule } from './rules/tag';
import { tagsRule } from './rules/tags';
import { titleRule } from './rules/title';
import { turnedRule } from './rules/turned';
import { wordsClearRule } from './rules/words-clear';
import { zonesRule } from './rules/zones';

/** Every rule on a canvas of a clip, in the order in which its findings are shown: a file and a line each. */
export const EXPORT_RULES = {
  length: lengthRule,
  size: sizeRule,
  even: evenRule,
  ratio: ratioRule,
  coverage: coverageRule,
  bars: bakedInBarsRule,
  combing: combingRule,
  'pixel-aspect': pixelAspectRule,
  rate: rateRule,
  stream: streamRule,
  level: levelRule,
  'bit-rate': bitRateRule,
  colour: colourRule,
  enlargement: enlargementRule,
  turned: turnedRule,
  panes: panesRule,
  zones: zonesRule,
  'words-clear': wordsClearRule,
  captions: captionsRule,
  'file-size': fileSizeRule,
  audio: audioRule,
  'sound-format': soundFormatRule,
  peak: peakRule,
  loudness: loudnessRule,
  cover: coverRule,
  sheet: sheetRule,
};

/** Every rule on what goes out with a post. */
export const POST_RULES = {
  title: titleRule,
  'key-phrase': keyPhraseRule,
  description: descriptionRule,
  tag: tagRule,
  tags: tagsRule,
  audience: audienceRule,
  children: childrenRule,
  'long-video': longVideoRule,
  'other-limits': otherLimitsRule,
};

export const RULES = { ...EXPORT_RULES, ...POST_RULES };
export type RuleId = keyof typeof RULES;
