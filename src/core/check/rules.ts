import { audioRule } from './rules/audio';
import { bakedInBarsRule } from './rules/baked-in-bars';
import { colourRule } from './rules/colour';
import { combingRule } from './rules/combing';
import { coverageRule } from './rules/coverage';
import { enlargementRule } from './rules/enlargement';
import { fileSizeRule } from './rules/file-size';
import { lengthRule } from './rules/length';
import { levelRule } from './rules/level';
import { panesRule } from './rules/panes';
import { pixelAspectRule } from './rules/pixel-aspect';
import { rateRule } from './rules/rate';
import { sizeRule } from './rules/size';
import { tagRule } from './rules/tag';
import { titleRule } from './rules/title';

/** Every rule on a canvas of a clip, in the order in which its findings are shown: a file and a line each. */
export const EXPORT_RULES = {
  length: lengthRule,
  size: sizeRule,
  coverage: coverageRule,
  bars: bakedInBarsRule,
  combing: combingRule,
  'pixel-aspect': pixelAspectRule,
  rate: rateRule,
  level: levelRule,
  colour: colourRule,
  enlargement: enlargementRule,
  panes: panesRule,
  'file-size': fileSizeRule,
  audio: audioRule,
};

/** Every rule on what goes out with a post. */
export const POST_RULES = { title: titleRule, tag: tagRule };

export const RULES = { ...EXPORT_RULES, ...POST_RULES };
export type RuleId = keyof typeof RULES;
