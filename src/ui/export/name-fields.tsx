import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { exportFileName, NAME_PARTS, patternProblem, PLAIN_PATTERN } from '@core/job/export-name';
import { fileNames } from '@state/file-names';
import { useSheets } from '@state/job';
import { useJob } from '../job/job-context';
import { EntryField } from '../parts/entry-field';
import { Body, Soft } from '../parts/words';
import { space } from '../theme/tokens';

/** The name that the next export of the canvas at hand gets. */
export function useNextName(): string {
  const job = useJob();
  const sheets = useSheets((state) => state.sheets);
  const pattern = fileNames.use((state) => state.value);
  return exportFileName(job, { sheets, pattern });
}

/** How exported files are named, with the name that comes of it. */
export function NameFields() {
  const pattern = fileNames.use((state) => state.value);
  const next = useNextName();
  const take = (text: string): string | null => {
    const problem = patternProblem(text);
    if (problem === null) fileNames.choose(text);
    return problem;
  };
  return (
    <View style={styles.group}>
      <EntryField label="Pattern of file names" value={pattern} onSubmit={take} />
      <Body>{next}</Body>
      <View style={styles.parts}>
        {Object.entries(NAME_PARTS).map(([part, about]) => (
          <Button
            key={part}
            compact
            mode="outlined"
            aria-label={`{${part}}: add ${about}`}
            onPress={() => take(`${pattern}_{${part}}`)}
          >
            {`{${part}}`}
          </Button>
        ))}
      </View>
      <Soft>Exports are named so from now on; those that are there keep their names.</Soft>
      {pattern !== PLAIN_PATTERN && (
        <Button style={styles.left} onPress={() => take(PLAIN_PATTERN)}>
          Reset
        </Button>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s, alignSelf: 'stretch' },
  parts: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  left: { alignSelf: 'flex-start' },
});
