import { toRateChange } from '@core/job/retime';
import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import type { Problem } from '@core/diagnosis/diagnosis';
import { listFoundInMaster, isReachingPast } from '@core/diagnosis/found-edges';
import { problemWords } from '@core/diagnosis/words';
import { NO_REPAIRS, type Repairs } from '@core/master/repairs';
import { toSource } from '@core/master/source';
import { WHOLE_RECT } from '@core/picture/size';
import { dispatch } from '@state/job';
import { selectPass, usePasses } from '@state/master';
import { useJob, useProblems, useSource } from '../job/job-context';
import { Mark } from '../parts/mark';
import { Body, Heading, Soft, Strong } from '../parts/words';
import { card, space } from '../theme/tokens';
import { EdgesPicture } from './edges-picture';

const STANDINGS = { fine: 'pass', note: 'note', warn: 'warn' } as const;

/** Changes the repairs of the master on screen; the file itself is never touched. */
export function useRepair(): (repairs: Repairs) => void {
  const job = useJob();
  const source = useSource();
  const master = job.masters.find((master) => master.id === source.id);
  return (repairs) => {
    if (!master) return;
    const rates = toRateChange(source, toSource(master, repairs));
    dispatch(job.id, { type: 'set-repairs', master: master.id, repairs, rates });
  };
}

/** List of what is wrong with the master and what it means for the clips, each with its repair. */
export function Diagnosis() {
  const job = useJob();
  const source = useSource();
  const looked = usePasses((all) => all[source.fingerprint]?.state === 'done');
  const repair = useRepair();
  const { edit, masters } = job;
  const shown = useMemo(() => masters.filter((master) => master.id === source.id), [masters, source.id]);
  const problems = useProblems(shown);
  const repaired = edit.repairs[source.id] !== undefined;
  return (
    <View style={styles.list}>
      <Heading>Diagnosis</Heading>
      {problems.length === 0 && (
        <Body>
          {looked
            ? 'No problems were found: square pixels, upright, whole frames, no bars.'
            : 'No problems so far. Bars, fields and sound are known once it has been analysed.'}
        </Body>
      )}
      {problems.length > 0 && (
        <View role="list" aria-label="Diagnosis" style={styles.list}>
          {problems.map((problem) => (
            <ProblemRow key={problem.code} problem={problem} onRepair={repair} />
          ))}
        </View>
      )}
      {repaired && (
        <Button mode="outlined" onPress={() => repair(NO_REPAIRS)}>
          Undo all repairs
        </Button>
      )}
    </View>
  );
}

function ProblemRow({ problem, onRepair }: { problem: Problem; onRepair: (repairs: Repairs) => void }) {
  const { title, meaning } = problemWords(problem);
  return (
    <View role="listitem" aria-label={title} style={styles.row}>
      <Mark standing={STANDINGS[problem.weight]} />
      <View style={styles.words}>
        <Strong>{title}</Strong>
        <Body>{meaning}</Body>
        {problem.code === 'bars' && <FoundEdges />}
        {problem.repaired && <Soft>Repaired here; the file is as it was.</Soft>}
        {problem.offers.length > 0 && (
          <View style={styles.actions}>
            {problem.offers.map(({ label, repairs }) => (
              <Button key={label} mode="outlined" compact onPress={() => onRepair(repairs)}>
                {label}
              </Button>
            ))}
          </View>
        )}
      </View>
    </View>
  );
}

/** The picture with and without the edges that were found, or set. */
function FoundEdges() {
  const source = useSource();
  const pass = usePasses((all) => selectPass(all[source.fingerprint]));
  const set = isReachingPast(WHOLE_RECT, source.live);
  const live = set ? source.live : pass && listFoundInMaster(pass, source);
  return live && <EdgesPicture source={source} live={live} />;
}

const styles = StyleSheet.create({
  list: { gap: space.s },
  row: { flexDirection: 'row', gap: space.m, padding: space.m, ...card },
  words: { flex: 1, gap: space.xs },
  actions: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
