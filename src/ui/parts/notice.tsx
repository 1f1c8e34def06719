import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { type Trouble, troubleWords } from '@core/trouble/trouble';
import { colours, space, card } from '../theme/tokens';
import { Mark, type Standing } from './mark';
import { Body, Strong } from './words';

interface Props {
  standing: Standing;
  title: string;
  children?: ReactNode;
  actions?: ReactNode;
}

/** Something to know, where it happened: what it is, what to do, and the way to do it. */
export function Notice({ standing, title, children, actions }: Props) {
  return (
    <View role="alert" style={[styles.notice, standing === 'stop' && styles.stop]}>
      <Mark standing={standing} />
      <View style={styles.words}>
        <Strong>{title}</Strong>
        {typeof children === 'string' ? <Body>{children}</Body> : children}
        {actions !== undefined && <View style={styles.actions}>{actions}</View>}
      </View>
    </View>
  );
}

/** A trouble in a notice. */
export function TroubleNotice({ trouble, actions }: { trouble: Trouble; actions?: ReactNode }) {
  const { what, todo } = troubleWords(trouble);
  return (
    <Notice standing="stop" title={what} actions={actions}>
      {todo}
    </Notice>
  );
}

const styles = StyleSheet.create({
  notice: {
    flexDirection: 'row',
    gap: space.m,
    padding: space.m,
    ...card,
  },
  stop: { borderColor: colours.madder, backgroundColor: colours.madderWash },
  words: { flex: 1, gap: space.xs },
  actions: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s, marginTop: space.s },
});
