import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons';
import { type ReactNode, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Mark } from './mark';
import { Heading, Soft } from './words';
import { card, colours, space, TARGET } from '../theme/tokens';

interface Props {
  title: string;
  /** Contents of the fold, in a few words. */
  detail?: string;
  /** Something in it is wrong: told also while it is folded. */
  wrong?: boolean;
  open?: boolean;
  children: ReactNode;
}

/** A part of a page under its title, folded until it is asked for. */
export function Fold({ title, detail, wrong = false, open: begins = false, children }: Props) {
  const [open, setOpen] = useState(begins);
  return (
    <View style={styles.fold}>
      <Pressable
        role="button"
        aria-expanded={open}
        aria-label={[title, detail, wrong && 'needs fixing'].filter(Boolean).join(' ')}
        onPress={() => setOpen(!open)}
        style={styles.head}
      >
        <MaterialCommunityIcons
          name={open ? 'chevron-down' : 'chevron-right'}
          size={24}
          color={colours.ink}
        />
        <Heading style={detail === undefined && styles.grow}>
          {detail === undefined ? title : `${title} `}
        </Heading>
        {detail !== undefined && (
          <Soft style={styles.detail} numberOfLines={2}>
            {detail}
          </Soft>
        )}
        {wrong && <Mark standing="stop" />}
      </Pressable>
      {open && <View style={styles.body}>{children}</View>}
    </View>
  );
}

const styles = StyleSheet.create({
  fold: { ...card },
  head: { flexDirection: 'row', alignItems: 'center', minHeight: TARGET, paddingHorizontal: space.s },
  grow: { flex: 1 },
  detail: { flex: 1, textAlign: 'right', paddingHorizontal: space.s },
  body: { gap: space.m, padding: space.m, paddingTop: 0 },
});
