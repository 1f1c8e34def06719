import { Pressable, StyleSheet, Text } from 'react-native';
import { FAMILIES, isOwnFamily } from '@core/words/families';
import { addFont, dropFont, useFontBook, useFontList } from '@state/words';
import { TroubleNotice } from '../parts/notice';
import { pickFont } from '../parts/pick-file';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import { Soft } from '../parts/words';
import { colours, fonts, space, TARGET } from '../theme/tokens';

/** Font families by what they are like, those of the person's own, and a way to bring one in. */
export function FamilyRow({ value, onTake }: { value: string; onTake: (family: string) => void }) {
  useFontBook();
  const own = useFontList((state) => state.own);
  const trouble = useFontList((state) => state.trouble);
  const bring = async () => {
    const file = await pickFont();
    const font = file && (await addFont(file));
    if (font) onTake(font.family);
  };
  const isOwn = own.some(({ family }) => family === value);
  return (
    <>
      <ToolRow gap={space.s}>
        {Object.entries(FAMILIES).map(([family, { label, name }]) => (
          <Family
            key={family}
            label={label}
            name={name}
            on={family === value}
            onPress={() => onTake(family)}
          />
        ))}
        {own.map(({ family, name }) => (
          <Family
            key={family}
            label="Your own"
            name={name}
            on={family === value}
            onPress={() => onTake(family)}
          />
        ))}
        <Tool
          icon="plus"
          label="Bring in a font of your own"
          words="Of your own"
          onPress={() => void bring()}
        />
        {isOwn && (
          <Tool
            icon="delete-outline"
            label="Forget this font"
            words="Forget"
            onPress={() => {
              void dropFont(value);
              onTake('plain');
            }}
          />
        )}
      </ToolRow>
      {isOwnFamily(value) && !isOwn && (
        <Soft>
          The font of these words is not in this browser: they are drawn in the plain one. Bring its file in.
        </Soft>
      )}
      {trouble && <TroubleNotice trouble={trouble} />}
    </>
  );
}

interface FamilyProps {
  label: string;
  name: string;
  on: boolean;
  onPress: () => void;
}

function Family({ label, name, on, onPress }: FamilyProps) {
  return (
    <Pressable
      role="radio"
      aria-label={`${label}: ${name}`}
      aria-checked={on}
      onPress={onPress}
      style={[styles.family, on && styles.on]}
    >
      <Text style={styles.label}>{label}</Text>
      <Soft>{name}</Soft>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  family: {
    minHeight: TARGET,
    paddingHorizontal: space.m,
    paddingVertical: space.xs,
    borderRadius: 6,
    borderWidth: 2,
    borderColor: colours.hairline,
    justifyContent: 'center',
  },
  on: { borderColor: colours.woad, backgroundColor: colours.woadWash },
  label: { fontFamily: fonts.strong, fontSize: 15, color: colours.ink },
});
