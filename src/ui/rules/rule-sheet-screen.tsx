import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet } from 'react-native';
import { Button } from 'react-native-paper';
import { PLAIN_PLACEMENT } from '@core/outlets/plain-placement';
import { type RuleSheet, ruleSheetSchema, SHEET_VERSION } from '@core/outlets/rule-sheet';
import { keepSheet, useSheets } from '@state/job';
import { MissingScreen } from '../parts/missing-screen';
import { Screen } from '../parts/screen';
import { Tool } from '../parts/tool';
import { useNow } from '../parts/use-now';
import { Review } from './review';
import { SheetForm, useSheetForm } from './sheet-form';

/** Contents of a new sheet. */
const BLANK: Omit<RuleSheet, 'outlet' | 'date'> = {
  schemaVersion: SHEET_VERSION,
  name: 'New outlet',
  about: '',
  source: '',
  placements: [
    {
      ...PLAIN_PLACEMENT,
      length: { least: null, most: 60, best: null },
      mostBytes: 100_000_000,
      video: { ...PLAIN_PLACEMENT.video, mostLevel: 42, mostRate: { num: 60, den: 1 } },
      audio: { ...PLAIN_PLACEMENT.audio, mostChannels: 2 },
      words: {
        title: 100,
        description: { most: 2000, seen: 120 },
        tags: { most: 20, characters: 30, required: null },
      },
    },
  ],
};

/** An id that no sheet has, also none that was removed. */
function freshOutlet(taken: readonly string[]): string {
  for (let n = 1; ; n++) if (!taken.includes(`outlet-${n}`)) return `outlet-${n}`;
}

/** Where a sheet is changed, copied or written anew. */
export function RuleSheetScreen() {
  const { outlet = 'new', copy } = useLocalSearchParams<{ outlet: string; copy?: string }>();
  const { sheets, shelf } = useSheets();
  const now = useNow();
  const known = sheets.find((sheet) => sheet.outlet === outlet);
  const taken = [...sheets.map((sheet) => sheet.outlet), ...Object.keys(shelf)];
  const [fresh] = useState(() => freshOutlet(taken));
  if (!known && outlet !== 'new') return <NoSheet outlet={outlet} />;
  const date = now.toISOString().slice(0, 10);
  if (!known) return <Editor key="new" begins={{ ...BLANK, outlet: fresh, date }} fresh />;
  if (copy === undefined) return <Editor key={outlet} begins={known} fresh={false} />;
  return (
    <Editor
      key={`copy of ${outlet}`}
      begins={{ ...known, outlet: fresh, name: `${known.name} (copy)` }}
      fresh
    />
  );
}

function NoSheet({ outlet }: { outlet: string }) {
  const router = useRouter();
  return (
    <MissingScreen
      title="No such rule sheet"
      what={`This browser has no rule sheet ${outlet}.`}
      leaveLabel="All rule sheets"
      onLeave={() => router.dismissTo('/rules')}
      leading={<Back />}
    >
      It was removed, or never came in. Removed ones can be brought back from the list.
    </MissingScreen>
  );
}

export function Back() {
  const router = useRouter();
  return <Tool icon="arrow-left" label="Rule sheets" words="" onPress={() => router.dismissTo('/rules')} />;
}

function Editor({ begins, fresh }: { begins: RuleSheet; fresh: boolean }) {
  const router = useRouter();
  const { form, draft } = useSheetForm(begins);
  const [reviewed, setReviewed] = useState<RuleSheet | null>(null);
  const { changed, valid, canUndo, undo } = draft;
  const ready = valid && (changed || fresh);
  const review = () => setReviewed(ruleSheetSchema.parse(form.getValues()));
  return (
    <Screen
      title={fresh ? 'A new rule sheet' : `Rules of ${begins.name}`}
      subtitle={begins.about || 'Limits of an outlet'}
      leading={<Back />}
      trailing={
        <Tool icon="undo" label="Undo" words="" disabled={!canUndo || reviewed !== null} onPress={undo} />
      }
      tray={
        reviewed ? (
          <>
            <Button
              mode="contained"
              contentStyle={styles.act}
              onPress={() => void keepSheet(reviewed).then(() => router.dismissTo('/rules'))}
            >
              Save these rules
            </Button>
            <Button onPress={() => setReviewed(null)}>Keep editing</Button>
          </>
        ) : (
          <Button mode="contained" disabled={!ready} contentStyle={styles.act} onPress={review}>
            {reviewLabel(valid, changed || fresh)}
          </Button>
        )
      }
    >
      {reviewed ? <Review after={reviewed} /> : <SheetForm form={form} />}
    </Screen>
  );
}

function reviewLabel(valid: boolean, changed: boolean): string {
  if (!valid) return 'Something needs to be fixed first';
  return changed ? 'See what this changes' : 'Nothing is changed yet';
}

const styles = StyleSheet.create({ act: { minHeight: 52 } });
