import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import type { Words } from '@core/job/clip';
import type { Abilities } from '@core/outlets/outlet-api';
import { PLAIN_CONTENT, PLAIN_PERMISSIONS } from '@core/outlets/post-form';
import type { Account } from '@core/posting/accounts';
import { fetchCollections } from '@state/posting';
import { dispatch } from '@state/job';
import { useClip, useJob } from '../job/job-context';
import { CheckBox } from '../parts/check-box';
import { Choice } from '../parts/choice';
import { Heading, Soft } from '../parts/words';
import { space } from '../theme/tokens';

const PERMISSIONS = [
  ['comments', 'Others may comment'],
  ['sharing', 'Others may share it'],
  ['reuse', 'Others may use it in clips of their own'],
] as const;

const CONTENT = [
  ['paid', 'Paid for, or a gift was received'],
  ['synthetic', 'Shows people or places made by a computer'],
] as const;

/**
 * Options of a post that the outlet has: permissions, statements on the content, a collection and a category.
 */
export function PostOptions({ abilities, account }: { abilities: Abilities; account: Account | null }) {
  const { id } = useJob();
  const { words } = useClip();
  const setWords = (more: Partial<Words>, joins?: string) =>
    dispatch(id, { type: 'set-words', words: { ...words, ...more } }, joins);
  const permissions = words.permissions ?? PLAIN_PERMISSIONS;
  const content = words.content ?? PLAIN_CONTENT;
  const { categories } = abilities;
  return (
    <>
      {abilities.permissions && (
        <Boxes
          title="What others may do"
          boxes={PERMISSIONS}
          value={permissions}
          onChange={(permissions) => setWords({ permissions })}
        />
      )}
      {abilities.content && (
        <Boxes
          title="What it is"
          boxes={CONTENT}
          value={content}
          onChange={(content) => setWords({ content })}
        />
      )}
      {abilities.collections && (
        <Collection
          value={words.collection ?? ''}
          account={account}
          onChange={(text) => {
            const { collection: _old, ...rest } = words;
            dispatch(
              id,
              { type: 'set-words', words: text === '' ? rest : { ...rest, collection: text } },
              'collection',
            );
          }}
        />
      )}
      {categories.length > 0 && (
        <View style={styles.group}>
          <Heading>Category</Heading>
          <Choice
            label="Category"
            value={words.category ?? ''}
            options={categories.map(({ id: value, name }) => ({ value, label: name }))}
            onChange={(category) => setWords({ category })}
          />
        </View>
      )}
    </>
  );
}

/** Some things that are so or not, under a title. */
function Boxes<Name extends string>({
  title,
  boxes,
  value,
  onChange,
}: {
  title: string;
  boxes: readonly (readonly [Name, string])[];
  value: Readonly<Record<Name, boolean>>;
  onChange: (value: Record<Name, boolean>) => void;
}) {
  return (
    <View style={styles.group}>
      <Heading>{title}</Heading>
      {boxes.map(([name, label]) => (
        <CheckBox
          key={name}
          label={label}
          on={value[name]}
          onChange={(on) => onChange({ ...value, [name]: on })}
        />
      ))}
    </View>
  );
}

function Collection({
  value,
  account,
  onChange,
}: {
  value: string;
  account: Account | null;
  onChange: (text: string) => void;
}) {
  const [known, setKnown] = useState<readonly string[]>([]);
  const id = account?.id;
  useEffect(() => {
    if (id === undefined) return undefined;
    let current = true;
    fetchCollections(id)
      .then((names) => current && setKnown(names))
      .catch(() => undefined);
    return () => {
      current = false;
    };
  }, [id]);
  return (
    <View style={styles.group}>
      <TextInput
        mode="outlined"
        dense
        label="Collection"
        aria-label="Collection"
        maxLength={60}
        value={value}
        onChangeText={onChange}
      />
      <View style={styles.row}>
        {known
          .filter((name) => name !== value)
          .map((name) => (
            <Button key={name} compact mode="outlined" onPress={() => onChange(name)}>
              {name}
            </Button>
          ))}
        {known.length === 0 && <Soft>A new name creates a new collection.</Soft>}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s, alignItems: 'center' },
});
