import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { planOfJob } from '@core/check/check';
import { activeCanvas } from '@core/job/clip';
import { applyCommand } from '@core/job/commands/commands';
import { type Job, findSource } from '@core/job/job';
import { costWords } from '@core/render/rate-cost';
import { compareRates, type FrameRate, rateLabel, STANDARD_RATES } from '@core/time/frame-rate';
import type { Sheets } from '@core/outlets/rule-sheet';
import { dispatch } from '@state/job';
import { Heading, Soft, Strong } from '../parts/words';
import { card, colours, space } from '../theme/tokens';
import { useClip, useJob } from './job-context';
import { useRuleSheets, useTarget } from './use-target';

/** Says what a rate does to the clip, before it is chosen. */
function describeCost(job: Job, sheets: Sheets, rate: FrameRate): string {
  const edit = applyCommand(job.edit, { type: 'set-rate', rate });
  return costWords(planOfJob({ masters: job.masters, edit }, sheets));
}

/** The clip's rate: that of its masters, or another at a cost that is told first. */
export function RateChoice() {
  const job = useJob();
  const clip = useClip();
  const { placement, label } = useTarget();
  const sheets = useRuleSheets();
  const [open, setOpen] = useState(false);
  const { rate } = activeCanvas(clip);
  const own = clip.cut.map((range) => findSource(job, range.master).rate);
  const rows = useMemo(() => {
    if (!open) return [];
    return STANDARD_RATES.filter((rate) => compareRates(rate, { num: 60, den: 1 }) <= 0).map((rate) => ({
      rate: rate,
      cost: describeCost(job, sheets, rate),
    }));
  }, [open, job, sheets]);
  const isOwn = (rate: FrameRate) => own.some((master) => compareRates(master, rate) === 0);
  return (
    <View style={styles.box}>
      <Heading>Frame rate</Heading>
      <Soft>
        {`${rateLabel(rate)} fps${isOwn(rate) ? ', as the master has' : `: ${describeCost(job, sheets, rate)}`}. `}
        {`${label} takes up to ${rateLabel(placement.video.mostRate)}.`}
      </Soft>
      {rows.map((row) => {
        const on = compareRates(row.rate, rate) === 0;
        const name = `${rateLabel(row.rate)} fps`;
        return (
          <View key={name} role="listitem" aria-label={`${name}: ${row.cost}`} style={styles.row}>
            <View style={styles.words}>
              <Strong>{isOwn(row.rate) ? `${name}, the master's` : name}</Strong>
              <Soft style={compareRates(row.rate, placement.video.mostRate) > 0 && styles.over}>
                {row.cost}
                {compareRates(row.rate, placement.video.mostRate) > 0 ? `; more than ${label} takes` : ''}
              </Soft>
            </View>
            <Button
              mode={on ? 'text' : 'outlined'}
              disabled={on}
              onPress={() => dispatch(job.id, { type: 'set-rate', rate: row.rate })}
            >
              {on ? 'Chosen' : `Use ${rateLabel(row.rate)}`}
            </Button>
          </View>
        );
      })}
      <Button onPress={() => setOpen(!open)}>{open ? 'Close the list' : 'Another rate'}</Button>
    </View>
  );
}

const styles = StyleSheet.create({
  box: { gap: space.s, padding: space.m, ...card },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.s },
  words: { flex: 1 },
  over: { color: colours.madder },
});
