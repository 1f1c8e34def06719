import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import type { OwnWords } from '@core/job/clip';
import { postWords, withVariant } from '@core/job/post-words';
import { withTags } from '@core/job/word-presets';
import { countCharacters, cutOff } from '@core/outlets/characters';
import { dispatch } from '@state/job';
import { useClip, useJob } from '../job/job-context';
import { useTarget } from '../job/use-target';
import { CheckBox } from '../parts/check-box';
import { Body, Heading, Soft } from '../parts/words';
import { colours, space, TARGET } from '../theme/tokens';
import { KeyPhrase } from './key-phrase';
import { SavedTags, Templates } from './saved-words';

/** Title, description and tags of the post: written once, or otherwise for this outlet. */
export function PostWordsForm() {
  const { id } = useJob();
  const { placement, sheet } = useTarget();
  const clip = useClip();
  const { outlet } = sheet;
  const isOwn = clip.words.variants?.[outlet] !== undefined;
  const words = postWords(clip, outlet);
  const setWords = (change: Partial<OwnWords>, joins?: string) =>
    dispatch(
      id,
      {
        type: 'set-words',
        words: isOwn ? withVariant(clip.words, outlet, change) : { ...clip.words, ...change },
      },
      joins && `${joins} ${isOwn ? outlet : ''}`,
    );
  const own = (on: boolean) => {
    const { title, description, tags } = clip.words;
    dispatch(id, {
      type: 'set-words',
      words: withVariant(clip.words, outlet, on ? { title, description, tags } : null),
    });
  };
  const title = countCharacters(words.title);
  const { most, seen } = placement.words.description;
  const description = countCharacters(words.description);
  const { required } = placement.words.tags;
  const hasRequired = words.tags.some((tag) => tag.toLowerCase() === required?.toLowerCase());
  return (
    <View style={styles.group}>
      <Heading>Words</Heading>
      <CheckBox label={`Other words for ${sheet.name}`} on={isOwn} onChange={own} />
      <TextInput
        mode="outlined"
        label="Title"
        aria-label="Title"
        value={words.title}
        error={title > placement.words.title}
        onChangeText={(text) => setWords({ title: text }, 'title')}
      />
      <Soft>
        {title} of {placement.words.title} characters.
      </Soft>
      <KeyPhrase title={words.title} onLead={(text) => setWords({ title: text })} />
      <TextInput
        mode="outlined"
        label="Description"
        aria-label="Description"
        multiline
        numberOfLines={3}
        value={words.description}
        onChangeText={(text) => setWords({ description: cutOff(text, most) }, 'description')}
      />
      <Soft>
        {`${description} of ${most} characters. `}
        {description > seen
          ? `Shown before “more”: “${cutOff(words.description, seen).trim()}…”`
          : 'All of it is seen.'}
      </Soft>
      <Tags tags={words.tags} onChange={(tags) => setWords({ tags })} />
      <Soft>
        {`${words.tags.length} of ${placement.words.tags.most} tags.`}
        {required === null
          ? ''
          : ` ${sheet.name} needs #${required}${hasRequired ? '.' : ': it is missing.'}`}
      </Soft>
      <SavedTags tags={words.tags} onTake={(tags) => setWords({ tags: withTags(words.tags, tags) })} />
      <Templates words={words} onTake={(filled) => setWords(filled)} />
    </View>
  );
}

/** A tag as it is kept: no mark in front, no spaces. */
const tidyTag = (text: string): string => text.trim().replace(/^#+/, '').replace(/\s+/g, '');

function Tags({ tags, onChange }: { tags: readonly string[]; onChange: (tags: string[]) => void }) {
  const [typed, setTyped] = useState('');
  const add = () => {
    const tag = tidyTag(typed);
    if (tag && !tags.includes(tag)) onChange([...tags, tag]);
    setTyped('');
  };
  return (
    <>
      <View role="group" aria-label="Tags" style={styles.tags}>
        {tags.map((tag) => (
          <Pressable
            key={tag}
            role="button"
            aria-label={`Remove #${tag}`}
            onPress={() => onChange(tags.filter((other) => other !== tag))}
            style={styles.tag}
          >
            <Body>#{tag}</Body>
            <MaterialCommunityIcons name="close" size={18} color={colours.softInk} />
          </Pressable>
        ))}
      </View>
      <View style={styles.row}>
        <TextInput
          mode="outlined"
          dense
          label="Add a tag"
          aria-label="Add a tag"
          value={typed}
          onChangeText={setTyped}
          onSubmitEditing={add}
          style={styles.grow}
        />
        <Button mode="outlined" disabled={tidyTag(typed) === ''} onPress={add}>
          Add
        </Button>
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  tags: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  tag: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.s,
    minHeight: TARGET,
    paddingHorizontal: space.m,
    borderWidth: 1,
    borderColor: colours.edge,
    borderRadius: 6,
    backgroundColor: colours.sheet,
  },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'center' },
  grow: { flex: 1 },
});
