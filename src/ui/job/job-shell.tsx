import { useRouter, useSegments } from 'expo-router';
import { type ReactNode, useEffect, useState } from 'react';
import { ScrollView, StyleSheet, useWindowDimensions, View } from 'react-native';
import { Button } from 'react-native-paper';
import type { Job } from '@core/job/job';
import type { Master } from '@core/master/master';
import { STEPS, listSteps, type StepName } from '@core/steps/steps';
import { bringBack, DEMO_JOB, missingMaster, openDemo, useBringIn } from '@state/files';
import { dismissRefusal, leaveJob, openJob, useJobs } from '@state/job';
import { ensurePasses } from '@state/master';
import { player, usePlayer } from '@state/player';
import { colours, space, WIDE } from '../theme/tokens';
import { MissingScreen } from '../parts/missing-screen';
import { TroubleNotice } from '../parts/notice';
import { pickVideo } from '../parts/pick-file';
import { Tool } from '../parts/tool';
import { useKeys } from '../parts/use-keys';
import { useLatest } from '../parts/use-latest';
import { Soft, Title } from '../parts/words';
import { BringInProgress } from '../home/bring-in-progress';
import { JobContext, useFindings, useJob, useJudging, useProblems } from './job-context';
import { StepNav } from './step-nav';
import { WatchNotice } from './watch-notice';
import { useRuleSheets } from './use-target';

const PLAY_KEYS = {
  ' ': () => player.togglePlay(),
  q: () => player.stepFrames(-1),
  w: () => player.stepFrames(1),
  'Shift+q': () => player.stepFrames(-10),
  'Shift+w': () => player.stepFrames(10),
};

/** Properties of a page whose job another tab works on: neither touch nor keys reach it. */
const INERT = { inert: true, 'aria-disabled': true } as object;

/** Shell of every page of a job: the job itself, its player, and on a wide screen its sheet. */
export function JobShell({ id, children }: { id: string; children: ReactNode }) {
  const loaded = useJobs((state) => state.loaded);
  const job = useJobs((state) => state.files[id]?.job);
  const router = useRouter();
  // The job that was looked for: one that is not there then is nowhere, or was deleted in another tab.
  const [asked, setAsked] = useState<string | null>(null);
  useEffect(() => {
    if (!loaded) return;
    void openJob(id).then(() => setAsked(id));
    return () => void leaveJob(id);
  }, [id, loaded]);
  if (!loaded || (!job && asked !== id)) return null;
  if (!job) {
    return (
      <MissingScreen
        title="No such job"
        what="This job is not in this browser."
        leaveLabel="All jobs"
        onLeave={() => router.replace('/')}
      >
        It was deleted, or it was made in another browser.
      </MissingScreen>
    );
  }
  return (
    <JobContext.Provider value={job}>
      <WithPlayer job={job}>{children}</WithPlayer>
    </JobContext.Provider>
  );
}

function WithPlayer({ job, children }: { job: Job; children: ReactNode }) {
  const watched = useJobs((state) => state.watched[job.id] === true);
  const [lost, setLost] = useState<Master | null>(null);
  const takeLost = useLatest(setLost);
  const there = lost === null;
  const fingerprints = job.masters.map((master) => master.fingerprint).join();
  const bringing = useBringIn((state) => state.fileName);
  useEffect(() => {
    void takeLost(missingMaster(job));
    // The fingerprints stand for the masters, and a file being brought in may be the one that is missing.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [fingerprints, bringing]);
  useEffect(() => {
    if (!there) return;
    player.openJob(job);
    ensurePasses(job);
  }, [there, job]);
  useJudging(job);
  useEffect(() => () => player.dispose(), []);
  useKeys(PLAY_KEYS);
  const wide = useWindowDimensions().width >= WIDE;
  // One canvas alone has the page to itself.
  const alone = useSegments().at(-1) === 'whole';
  return (
    <View style={styles.shell}>
      {wide && !alone && <SideSheet />}
      <View style={styles.main}>
        <Troubles job={job} lost={lost} />
        {watched && (
          <View style={styles.troubles}>
            <WatchNotice />
          </View>
        )}
        <View style={styles.page} {...(watched ? INERT : {})}>
          {children}
        </View>
      </View>
    </View>
  );
}

/** Notices over every page of a job when something is wrong with it. */
function Troubles({ job, lost }: { job: Job; lost: Master | null }) {
  const save = useJobs((state) => state.saveTroubles[job.id]);
  const refusal = useJobs((state) => state.refusals[job.id]);
  const playing = usePlayer((state) => state.trouble);
  const bringIn = useBringIn((state) => state.trouble);
  const bringing = useBringIn((state) => state.fileName);
  if (!lost && !save && !refusal && !playing && !bringing) return null;
  const fromDemo = job.id === DEMO_JOB && lost?.id === job.masters[0]?.id;
  const again = async () => {
    if (fromDemo) return openDemo();
    const file = await pickVideo();
    return file && lost ? bringBack(job, lost, file) : null;
  };
  return (
    <View style={styles.troubles}>
      {save && <TroubleNotice trouble={save} />}
      {refusal && (
        <TroubleNotice
          trouble={refusal}
          actions={<Button onPress={() => dismissRefusal(job.id)}>Close</Button>}
        />
      )}
      {playing && !lost && <TroubleNotice trouble={playing} />}
      {bringing && <BringInProgress />}
      {lost && bringIn && <TroubleNotice trouble={bringIn} />}
      {lost && !bringing && (
        <TroubleNotice
          trouble={{ code: 'master-gone', values: { file: lost.fileName } }}
          actions={
            <Button mode="contained" onPress={() => void again()}>
              {fromDemo ? 'Copy the demo in again' : `Find ${lost.fileName}`}
            </Button>
          }
        />
      )}
    </View>
  );
}

/** The job sheet as a narrow strip at the left of a wide screen. */
function SideSheet() {
  const job = useJob();
  const findings = useFindings();
  const sheets = useRuleSheets();
  const problems = useProblems(job.masters);
  const router = useRouter();
  const last = useSegments().at(-1);
  const current = STEPS.find((name) => name === last) as StepName | undefined;
  return (
    <ScrollView style={styles.side} contentContainerStyle={styles.sideContent}>
      <View style={styles.back}>
        <Tool icon="arrow-left" label="All jobs" onPress={() => router.dismissTo('/')} />
      </View>
      <Title numberOfLines={2}>{job.title}</Title>
      <Soft>Saved in this browser</Soft>
      <StepNav jobId={job.id} steps={listSteps({ job, sheets, findings, problems })} current={current} />
      <Button mode="outlined" onPress={() => router.dismissTo(`/job/${job.id}`)}>
        Master and facts
      </Button>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  shell: { flex: 1, flexDirection: 'row', backgroundColor: colours.paper },
  side: { width: 272, flexGrow: 0, borderRightWidth: 1, borderColor: colours.hairline },
  sideContent: { padding: space.m, gap: space.s, alignItems: 'stretch' },
  back: { alignItems: 'flex-start' },
  main: { flex: 1 },
  page: { flex: 1 },
  troubles: { padding: space.m, gap: space.s },
});
