import { colours, fonts, sizes } from '../theme/tokens';

/** How charts are drawn. */
export const CHART = {
  backgroundGradientFrom: colours.sheet,
  backgroundGradientTo: colours.sheet,
  fillShadowGradientFrom: colours.woad,
  fillShadowGradientTo: colours.woad,
  fillShadowGradientFromOpacity: 0.14,
  fillShadowGradientToOpacity: 0.14,
  color: () => colours.woad,
  labelColor: () => colours.softInk,
  propsForLabels: { fontFamily: fonts.figures, fontSize: sizes.small },
  propsForBackgroundLines: { stroke: colours.hairline, strokeDasharray: '' },
  strokeWidth: 1.5,
  // Labels are rounded by who formats them.
  decimalPlaces: 4,
};
