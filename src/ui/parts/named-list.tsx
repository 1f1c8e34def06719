import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import type { NamedStore } from '@state/named-store';
import { card, space } from '../theme/tokens';
import { pickJson, saveFile } from './pick-file';
import { RefusalNotice } from './refusal';
import { Tool } from './tool';
import { Soft, Strong } from './words';

interface Props<Named extends { name: string }> {
  store: NamedStore<Named>;
  /** Singular and plural of its name: "preset", "presets". */
  one: string;
  many: string;
  /** Describes one of them in a line. */
  detail: (named: Named) => string;
  /** Label of taking one, and what it does. */
  take: { label: string; act: (named: Named) => void };
  /** Keeps what is worked on under a name, or says why that cannot be kept; null while there is nothing to keep. */
  onSave: ((name: string) => Promise<string | null>) | null;
}

const capital = (word: string): string => `${word.charAt(0).toUpperCase()}${word.slice(1)}`;

/** Things under names: taken again, kept, deleted, and handed on as a file. */
export function NamedList<Named extends { name: string }>({
  store,
  one,
  many,
  detail,
  take,
  onSave,
}: Props<Named>) {
  const all = store.use((state) => state.all);
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const keep = async () => {
    if (name.trim() === '') return setProblem(`Give the ${one} a name first.`);
    setProblem(null);
    const wrong = (await onSave?.(name.trim())) ?? null;
    if (wrong === null) setName('');
    else setProblem(`The ${one} cannot be kept like this (${wrong}). Nothing was changed.`);
  };
  const open = async () => {
    const file = await pickJson();
    if (!file) return;
    const wrong = await store.take(file);
    setProblem(
      wrong === null
        ? null
        : `${file.name} holds no ${many} that can be used (${wrong}). Nothing was changed.`,
    );
  };
  return (
    <View style={styles.group}>
      {all.map((named) => (
        <View
          key={named.name}
          role="listitem"
          aria-label={`${capital(one)} ${named.name}`}
          style={styles.item}
        >
          <View style={styles.words}>
            <Strong>{named.name}</Strong>
            <Soft>{detail(named)}</Soft>
          </View>
          <Button
            mode="outlined"
            accessibilityLabel={`${take.label} ${named.name}`}
            onPress={() => take.act(named)}
          >
            {take.label}
          </Button>
          <Tool
            icon="delete-outline"
            label={`Delete ${one} ${named.name}`}
            words=""
            onPress={() => store.drop(named.name)}
          />
        </View>
      ))}
      {onSave && (
        <View style={styles.row}>
          <TextInput
            mode="outlined"
            label={`${capital(one)} name`}
            aria-label={`${capital(one)} name`}
            value={name}
            onChangeText={setName}
            style={styles.words}
          />
          <Button mode="contained" onPress={() => void keep()}>
            {`Save the ${one}`}
          </Button>
        </View>
      )}
      {problem !== null && <RefusalNotice>{problem}</RefusalNotice>}
      <View style={styles.row}>
        <Button icon="file-outline" onPress={() => void open()}>
          {`Open a ${many} file`}
        </Button>
        <Button disabled={all.length === 0} icon="download-outline" onPress={() => saveFile(store.file())}>
          Save as a file
        </Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.s, flexWrap: 'wrap' },
  words: { flex: 1 },
  item: { flexDirection: 'row', alignItems: 'center', gap: space.s, padding: space.s, ...card },
});
