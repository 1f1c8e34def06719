import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons';
import type { ComponentProps } from 'react';
import { View } from 'react-native';
import type { Standing } from '@core/steps/step';
import { colours } from '../theme/tokens';

export type { Standing };

const LOOKS: Record<
  Standing,
  { icon: ComponentProps<typeof MaterialCommunityIcons>['name']; colour: string; words: string }
> = {
  pass: { icon: 'check-circle', colour: colours.verdigris, words: 'Pass' },
  note: { icon: 'information-outline', colour: colours.softInk, words: 'Note' },
  warn: { icon: 'alert', colour: colours.weld, words: 'Warning' },
  stop: { icon: 'minus-circle', colour: colours.madder, words: 'Stop' },
  unknown: { icon: 'timer-sand', colour: colours.softInk, words: 'Not known yet' },
  open: { icon: 'circle-outline', colour: colours.softInk, words: 'To do' },
};

/** A mark for how something stands: shape and colour together, and a name for those who see neither. */
export function Mark({ standing, size = 24 }: { standing: Standing; size?: number }) {
  const { icon, colour, words } = LOOKS[standing];
  return (
    <View role="img" aria-label={words}>
      <MaterialCommunityIcons name={icon} size={size} color={colour} />
    </View>
  );
}
