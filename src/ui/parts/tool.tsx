import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons';
import type { ComponentProps } from 'react';
import { Pressable, StyleSheet, Text } from 'react-native';
import { colours, fonts, sizes, space, TARGET } from '../theme/tokens';
import { useTooltip } from './use-tooltip';

interface Props {
  icon: ComponentProps<typeof MaterialCommunityIcons>['name'];
  /** The accessible name, and the words under the icon where `words` is not given. */
  label: string;
  /** Shorter words to show; empty for the icon alone. */
  words?: string;
  onPress?: () => void;
  /** Told when it begins and when it ends to be held. */
  onHold?: (pressed: boolean) => void;
  disabled?: boolean;
  pressed?: boolean;
  /** The key that does the same; a wide page names it where the pointer rests. */
  hotkey?: string;
}

/** A small control of a tray: icon over word, at least a thumb wide. */
export function Tool({
  icon,
  label,
  words = label,
  onPress,
  onHold,
  disabled = false,
  pressed,
  hotkey,
}: Props) {
  const area = useTooltip(hotkey === undefined ? null : `${label} (${hotkey})`);
  const colour = disabled ? colours.edge : colours.ink;
  return (
    <Pressable
      ref={area}
      role="button"
      aria-label={label}
      aria-disabled={disabled}
      {...(pressed === undefined ? {} : { 'aria-pressed': pressed })}
      disabled={disabled}
      onPress={onPress}
      onPressIn={() => onHold?.(true)}
      onPressOut={() => onHold?.(false)}
      style={[styles.tool, pressed === true && styles.pressed]}
    >
      <MaterialCommunityIcons name={icon} size={24} color={colour} />
      {words !== '' && <Text style={[styles.words, { color: colour }]}>{words}</Text>}
    </Pressable>
  );
}

const styles = StyleSheet.create({
  tool: {
    minWidth: TARGET,
    minHeight: TARGET,
    paddingHorizontal: space.xs,
    alignItems: 'center',
    justifyContent: 'center',
    borderRadius: 6,
  },
  pressed: { backgroundColor: colours.woadWash },
  words: { fontFamily: fonts.text, fontSize: sizes.small, lineHeight: 16 },
});
