import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import type { Placement } from '@core/outlets/placement';
import type { RuleSheet } from '@core/outlets/rule-sheet';
import { sizesLabel } from '@core/outlets/taken-sizes';
import { secondsLabel } from '@core/figures/figures';
import {
  bringSheetBack,
  isShipped,
  keepSheet,
  listOwnRemovedSheets,
  removeSheet,
  sheetFile,
  readSheetOfFile,
  sheetVersions,
  useSheets,
} from '@state/job';
import { Notice } from '../parts/notice';
import { pickJson, saveFile } from '../parts/pick-file';
import { Screen } from '../parts/screen';
import { Tool } from '../parts/tool';
import { Heading, Soft, Strong } from '../parts/words';
import { card, space } from '../theme/tokens';
import { Effects } from './effects';
import { LastChange } from './last-change';
import { Review } from './review';

/** The rule sheets of this browser: those that ship, and the person's own. */
export function RulesScreen() {
  const router = useRouter();
  const { sheets, shelf, lost } = useSheets();
  const [incoming, setIncoming] = useState<RuleSheet | null>(null);
  const [leaving, setLeaving] = useState<RuleSheet | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const open = async () => {
    const file = await pickJson();
    if (!file) return;
    const read = await readSheetOfFile(file);
    setProblem(
      'problem' in read ? `${file.name} cannot be taken. ${read.problem} Nothing was changed.` : null,
    );
    setIncoming('sheet' in read ? read.sheet : null);
  };
  const take = (sheet: RuleSheet) => keepSheet(sheet).then(() => setIncoming(null));
  const remove = ({ outlet }: RuleSheet) => removeSheet(outlet).then(() => setLeaving(null));
  const removed = listOwnRemovedSheets(shelf);
  return (
    <Screen
      title="Rule sheets"
      subtitle="What the outlets take"
      leading={<Tool icon="arrow-left" label="All jobs" words="" onPress={() => router.dismissTo('/')} />}
      tray={
        incoming ? (
          <>
            <Button mode="contained" contentStyle={styles.act} onPress={() => void take(incoming)}>
              {`Take the rules of ${incoming.name}`}
            </Button>
            <Button onPress={() => setIncoming(null)}>Leave them</Button>
          </>
        ) : leaving ? (
          <>
            <Button mode="contained" contentStyle={styles.act} onPress={() => void remove(leaving)}>
              {`Take ${leaving.name} out of use`}
            </Button>
            <Button onPress={() => setLeaving(null)}>Leave it</Button>
          </>
        ) : (
          <Button mode="contained" contentStyle={styles.act} onPress={() => router.push('/rules/new')}>
            Write a new sheet
          </Button>
        )
      }
    >
      {problem !== null && (
        <Notice
          standing="stop"
          title="That file is not a rule sheet."
          actions={<Button onPress={() => setProblem(null)}>Close</Button>}
        >
          {problem}
        </Notice>
      )}
      {lost.length > 0 && (
        <Notice standing="warn" title="Some stored versions cannot be read.">
          {`They are left out: ${lost.join(', ')}. The sheets that ship are not touched.`}
        </Notice>
      )}
      {incoming ? (
        <Review after={incoming} />
      ) : leaving ? (
        <>
          <Heading>{`Without the rules of ${leaving.name}`}</Heading>
          <Soft>
            Clips that are made for it are judged by no outlet. It can be brought back from this page.
          </Soft>
          <Effects sheets={sheets} outlet={leaving.outlet} sheet={null} />
        </>
      ) : (
        <>
          <LastChange />
          <View role="list" aria-label="Rule sheets" style={styles.list}>
            {sheets.map((sheet) => (
              <SheetCard key={sheet.outlet} sheet={sheet} onRemove={() => setLeaving(sheet)} />
            ))}
          </View>
          <Button icon="file-upload-outline" style={styles.left} onPress={() => void open()}>
            Open a rule sheet from a file
          </Button>
          {removed.length > 0 && (
            <View role="list" aria-label="Removed" style={styles.list}>
              <Heading>Removed</Heading>
              {removed.map((sheet) => (
                <View key={sheet.outlet} role="listitem" aria-label={sheet.name} style={styles.row}>
                  <Strong style={styles.grow}>{sheet.name}</Strong>
                  <Button
                    onPress={() => void bringSheetBack(sheet.outlet)}
                  >{`Bring ${sheet.name} back`}</Button>
                </View>
              ))}
            </View>
          )}
        </>
      )}
    </Screen>
  );
}

function SheetCard({ sheet, onRemove }: { sheet: RuleSheet; onRemove: () => void }) {
  const router = useRouter();
  const { shelf } = useSheets();
  const { outlet, name, about, date, placements } = sheet;
  const versions = sheetVersions(shelf, outlet);
  const own = !isShipped(outlet);
  const kept = own ? 'Your own sheet' : versions.length > 1 ? 'Changed by you' : 'As it ships';
  return (
    <View role="listitem" aria-label={`${name}: ${kept}`} style={styles.card}>
      <Heading>{name}</Heading>
      <Soft>{`${about || 'An outlet'}. ${kept}, as of ${date}.`}</Soft>
      {placements.map((placement) => (
        <Soft key={placement.id}>
          {`${placement.name}: ${sizesLabel(placement.sizes)}, ${lengthsLabel(placement)}`}
        </Soft>
      ))}
      <View style={styles.row}>
        <Button
          mode="outlined"
          accessibilityLabel={`Change the rules of ${name}`}
          onPress={() => router.push(`/rules/${outlet}`)}
        >
          Change
        </Button>
        <View style={styles.grow} />
        <Tool
          icon="content-copy"
          label={`Copy the rules of ${name}`}
          words="Copy"
          onPress={() => router.push(`/rules/${outlet}?copy=1`)}
        />
        {versions.length > 1 && (
          <Tool
            icon="history"
            label={`Versions of the rules of ${name}`}
            words="Versions"
            onPress={() => router.push(`/rules/versions/${outlet}`)}
          />
        )}
        <Tool
          icon="download-outline"
          label={`Save the rules of ${name} as a file`}
          words="Save"
          onPress={() => saveFile(sheetFile(sheet))}
        />
        <Tool icon="delete-outline" label={`Remove the rules of ${name}`} words="Remove" onPress={onRemove} />
      </View>
    </View>
  );
}

/** Writes the lengths that a placement takes. */
const lengthsLabel = ({ length: { least, most } }: Placement): string =>
  least === null ? `up to ${secondsLabel(most)}` : `${secondsLabel(least)} to ${secondsLabel(most)}`;

const styles = StyleSheet.create({
  act: { minHeight: 52 },
  list: { gap: space.m },
  card: { padding: space.m, gap: space.xs, ...card },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.xs },
  grow: { flex: 1 },
  left: { alignSelf: 'flex-start' },
});
