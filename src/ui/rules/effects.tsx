import { useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { measuredWords, ruleName } from '@core/check/finding';
import type { ChangedVerdict } from '@core/check/verdicts';
import type { RuleSheet, Sheets } from '@core/outlets/rule-sheet';
import type { Trouble } from '@core/trouble/trouble';
import { checkTrouble, type SheetEffect, sheetEffects } from '@state/check';
import { Mark } from '../parts/mark';
import { StripBar } from '../parts/strip-bar';
import { TroubleNotice } from '../parts/notice';
import { Body, Heading, Soft, Strong } from '../parts/words';
import { card, space } from '../theme/tokens';

/** Result of judging a change. */
type ReviewResult =
  | { state: 'working'; share: number }
  | { state: 'done'; effects: SheetEffect[] }
  | { state: 'failed'; trouble: Trouble };

/** Change of an outlet's sheet: another version, or none. */
interface SheetChange {
  outlet: string;
  sheet: RuleSheet | null;
}

/** Judges every job under the sheets in use, and with one of them changed or gone. */
function useEffects(sheets: Sheets, { outlet, sheet }: SheetChange): ReviewResult {
  const [found, setFound] = useState<ReviewResult>({ state: 'working', share: 0 });
  useEffect(() => {
    const stop = new AbortController();
    const after = [...sheets.filter((other) => other.outlet !== outlet), ...(sheet ? [sheet] : [])];
    const onProgress = (share: number) => setFound({ state: 'working', share });
    sheetEffects(sheets, after, { onProgress, signal: stop.signal })
      .then((effects) => setFound({ state: 'done', effects }))
      .catch((error: unknown) => {
        if (!stop.signal.aborted) setFound({ state: 'failed', trouble: checkTrouble(error) });
      });
    return () => stop.abort();
  }, [sheets, outlet, sheet]);
  return found;
}

/** Effects of a rule sheet's change on the clips of every job: what no longer passes, and what passes now. */
export function Effects({ sheets, ...change }: SheetChange & { sheets: Sheets }) {
  const found = useEffects(sheets, change);
  if (found.state === 'working')
    return (
      <View style={styles.group}>
        <Soft>Judging every clip of every job…</Soft>
        <StripBar label="Judging every clip" done={found.share} total={1} />
      </View>
    );
  if (found.state === 'failed') return <TroubleNotice trouble={found.trouble} />;
  const all = found.effects.flatMap(({ id, title, verdicts }) =>
    verdicts.map((verdict) => ({ id, title, verdict })),
  );
  const worse = all.filter(({ verdict }) => verdict.worse);
  const better = all.filter(({ verdict }) => !verdict.worse);
  if (all.length === 0) return <Body>No clip of any job is judged differently.</Body>;
  return (
    <>
      <Changes title="Judged worse than before" rows={worse} />
      <Changes title="Judged better than before" rows={better} />
    </>
  );
}

interface Row {
  id: string;
  title: string;
  verdict: ChangedVerdict;
}

function Changes({ title, rows }: { title: string; rows: readonly Row[] }) {
  if (rows.length === 0) return null;
  return (
    <View role="list" aria-label={title} style={styles.group}>
      <Heading>{`${title}: ${rows.length}`}</Heading>
      {rows.map((row) => (
        <Change key={toKey(row)} row={row} />
      ))}
    </View>
  );
}

const toKey = ({ id, verdict: { cell, rule } }: Row): string =>
  `${id} ${cell.clip} ${cell.canvas} ${cell.placement} ${rule}`;

function Change({ row: { id, title, verdict } }: { row: Row }) {
  const router = useRouter();
  const { cell, rule, before, after } = verdict;
  const name = `${title}, ${cell.clipName}, ${cell.label}: ${ruleName(rule)}`;
  return (
    <View role="listitem" aria-label={name} style={styles.change}>
      <Mark standing={after.severity} />
      <View style={styles.words}>
        <Strong>{`${cell.clipName}, ${cell.label}`}</Strong>
        <Soft>{`In ${title}`}</Soft>
        <Body>{`${ruleName(rule)}: ${measuredWords(after)}`}</Body>
        <Soft>{`Before: ${measuredWords(before)}`}</Soft>
      </View>
      <Button
        accessibilityLabel={`Go to ${name}`}
        onPress={() => router.push(`/job/${id}/check?clip=${cell.clip}&canvas=${cell.canvas}`)}
      >
        Go there
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  change: { flexDirection: 'row', alignItems: 'center', gap: space.s, padding: space.s, ...card },
  words: { flex: 1 },
});
