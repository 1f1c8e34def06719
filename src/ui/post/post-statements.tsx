import { StyleSheet, View } from 'react-native';
import { TextInput } from 'react-native-paper';
import type { Words } from '@core/job/clip';
import { isWebAddress } from '@core/outlets/web-address';
import { dispatch } from '@state/job';
import { useClip, useJob } from '../job/job-context';
import { useTarget } from '../job/use-target';
import { Choice } from '../parts/choice';
import { Heading, Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { LongVideoSearch } from './long-video-search';

const CHILDREN = [
  { value: 'unsaid', label: 'Not said' },
  { value: 'no', label: 'No' },
  { value: 'yes', label: 'Yes' },
] as const;

/** Statements that the outlet asks for beside the words: on children, and the link to the long video. */
export function PostStatements() {
  const { id } = useJob();
  const { words } = useClip();
  const { childrenStatement, longVideo } = useTarget().placement;
  const { forChildren, longVideo: link = '', ...rest } = words;
  const setWords = (more: Partial<Words>, joins?: string) =>
    dispatch(id, { type: 'set-words', words: { ...rest, ...more } }, joins);
  const said = forChildren === undefined ? {} : { forChildren };
  const linked = link === '' ? {} : { longVideo: link };
  return (
    <>
      {childrenStatement && (
        <View style={styles.group}>
          <Heading>Made for children</Heading>
          <Choice
            label="Made for children"
            value={forChildren === undefined ? 'unsaid' : forChildren ? 'yes' : 'no'}
            options={CHILDREN}
            onChange={(value) =>
              setWords({ ...linked, ...(value === 'unsaid' ? {} : { forChildren: value === 'yes' }) })
            }
          />
        </View>
      )}
      {longVideo !== 'none' && (
        <View style={styles.group}>
          <Heading>Link to the long video</Heading>
          <TextInput
            mode="outlined"
            label="Address"
            aria-label="Address of the long video"
            inputMode="url"
            autoCapitalize="none"
            value={link}
            error={link !== '' && !isWebAddress(link.trim())}
            onChangeText={(text) =>
              setWords({ ...said, ...(text === '' ? {} : { longVideo: text }) }, 'long-video')
            }
          />
          <LongVideoSearch onTake={(address) => setWords({ ...said, longVideo: address })} />
          <Soft>
            {longVideo === 'needed' ? 'The outlet requires one.' : 'Viewers can go from the clip to it.'}
          </Soft>
        </View>
      )}
    </>
  );
}

const styles = StyleSheet.create({ group: { gap: space.s } });
