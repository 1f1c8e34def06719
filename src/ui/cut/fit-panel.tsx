import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import type { Proposal } from '@core/cut/fit-length';
import { lengthLabel } from '@core/time/timecode';
import { clipSeconds, proposeFits } from '@state/cut';
import { dispatch } from '@state/job';
import { player } from '@state/player';
import { useClip, useJob, useLooks } from '../job/job-context';
import { CheckBox } from '../parts/check-box';
import { Choice } from '../parts/choice';
import { NumberField } from '../parts/number-field';
import { Body, Heading, Soft, Strong } from '../parts/words';
import { card, space } from '../theme/tokens';

const LENGTHS = [
  { value: '15', label: '15 s' },
  { value: '20', label: '20 s' },
  { value: '30', label: '30 s' },
  { value: '60', label: '60 s' },
] as const;

const NAMES: Record<Proposal['by'], [name: string, why: string]> = {
  movement: ['The liveliest shots', 'by how much moves in them'],
  sound: ['The loudest shots', 'by the level of their sound'],
  even: ['All over the cut', 'spread from its start to its end'],
};

/** Asks for a length, and shows ways to it, each to be played before it is taken. */
export function FitPanel() {
  const job = useJob();
  const clip = useClip();
  const passOf = useLooks(job.masters);
  const [wish, setWish] = useState({ seconds: 20, keepFirst: true, keepLast: true });
  const found = useMemo(() => proposeFits(job, wish), [job, wish]);
  const looked = job.masters.every((master) => passOf(master.fingerprint) !== null);
  const preset = LENGTHS.find((length) => Number(length.value) === wish.seconds)?.value;
  return (
    <View style={styles.panel}>
      <Heading>Fit to a length</Heading>
      <Choice
        label="Length to fit to"
        value={preset ?? ('' as (typeof LENGTHS)[number]['value'])}
        options={LENGTHS}
        onChange={(value) => setWish({ ...wish, seconds: Number(value) })}
      />
      <View style={styles.row}>
        <NumberField
          label="Seconds"
          value={String(wish.seconds)}
          least={1}
          most={7200}
          onTake={(seconds) => setWish({ ...wish, seconds })}
        />
        <View style={styles.checks}>
          <CheckBox
            label="Keep the first moment"
            on={wish.keepFirst}
            onChange={(keepFirst) => setWish({ ...wish, keepFirst })}
          />
          <CheckBox
            label="Keep the last moment"
            on={wish.keepLast}
            onChange={(keepLast) => setWish({ ...wish, keepLast })}
          />
        </View>
      </View>
      {!looked && (
        <Soft>
          The master is still being analysed. Movement and sound are taken into account once that is done.
        </Soft>
      )}
      {found.length === 0 && <Body>The clip is not longer than that, so nothing has to be left out.</Body>}
      {found.length > 0 && (
        <View role="list" aria-label="Ways to reach the length" style={styles.panel}>
          {found.map((proposal) => {
            const [name, why] = NAMES[proposal.by];
            const length = lengthLabel(clipSeconds(job, { ...clip, cut: proposal.cut }));
            return (
              <View
                key={proposal.by}
                role="listitem"
                aria-label={`${name}: ${length}`}
                style={styles.proposal}
              >
                <Strong>{name}</Strong>
                <Soft>
                  {length} in {proposal.cut.length} {proposal.cut.length === 1 ? 'range' : 'ranges'}, {why}
                </Soft>
                <View style={styles.actions}>
                  <Button mode="outlined" icon="play" onPress={() => player.playCut(proposal.cut)}>
                    Play it
                  </Button>
                  <Button
                    mode="contained"
                    onPress={() => dispatch(job.id, { type: 'set-cut', act: 'fit', cut: proposal.cut })}
                  >
                    Use it
                  </Button>
                </View>
              </View>
            );
          })}
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: space.s },
  row: { flexDirection: 'row', gap: space.m, alignItems: 'flex-start' },
  checks: { flex: 2 },
  proposal: { gap: space.xs, padding: space.m, ...card },
  actions: { flexDirection: 'row', gap: space.s, marginTop: space.xs },
});
