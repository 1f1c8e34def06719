import { Pressable, StyleSheet, View } from 'react-native';
import { EntryField } from './entry-field';
import { ToolRow } from './tool-row';
import { colours, space, TARGET } from '../theme/tokens';

/** Colours that words and bands begin with: chalk, paper, ink, and the dyes. */
const COLOURS = {
  Chalk: '#FFFDF7',
  Ink: '#1F2B33',
  Woad: '#2B5C8A',
  Verdigris: '#256E5C',
  Weld: '#E3B23C',
  Madder: '#A83245',
  Orchil: '#6B3F73',
} as const;

const isColour = (text: string): boolean => /^#?[0-9A-Fa-f]{6}$/.test(text);

/** A colour: one of a few, or any as it is typed. */
export function Swatches({
  label,
  value,
  onTake,
}: {
  label: string;
  value: string;
  onTake: (colour: string) => void;
}) {
  return (
    <View style={styles.row}>
      <View style={styles.few}>
        <ToolRow>
          {Object.entries(COLOURS).map(([name, colour]) => (
            <Pressable
              key={colour}
              role="radio"
              aria-label={`${label}: ${name}`}
              aria-checked={value.toUpperCase() === colour}
              onPress={() => onTake(colour)}
              style={[
                styles.swatch,
                { backgroundColor: colour },
                value.toUpperCase() === colour && styles.on,
              ]}
            />
          ))}
        </ToolRow>
      </View>
      <View style={styles.typed}>
        <EntryField
          label={label}
          value={value.toUpperCase()}
          onSubmit={(text) => {
            if (!isColour(text)) return `“${text}” is not a colour. Type six digits, such as #1F2B33.`;
            onTake(`#${text.replace('#', '').toUpperCase()}`);
            return null;
          }}
        />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.s, alignItems: 'flex-end' },
  few: { flex: 1 },
  typed: { width: 112 },
  swatch: { width: TARGET, height: TARGET, borderRadius: 6, borderWidth: 1, borderColor: colours.edge },
  on: { borderWidth: 4, borderColor: colours.woad },
});
