import { useRouter, useSegments } from 'expo-router';
import { type ReactNode, useEffect, useState } from 'react';
import { ScrollView, StyleSheet, useWindowDimensions, View } from 'react-native';
import { Button } from 'react-native-paper';
import type { Job } from '@core/job/job';
import { bringBack, DEMO_JOB, hasBytes, openDemo, useBringIn } from '@state/bring-in';
import { useJobs } from '@state/jobs';
import { leavePlayer, playJob, togglePlay, stepFrames, usePlayer } from '@state/player';
import { colours, space, WIDE } from '../theme/tokens';
import { Notice, TroubleNotice } from '../parts/notice';
import { pickVideo } from '../parts/pick-file';
import { Screen } from '../parts/screen';
import { Tool } from '../parts/tool';
import { useKeys } from '../parts/use-keys';
import { Soft, Title } from '../parts/words';
import { BringInProgress } from '../home/bring-in-progress';
import { JobContext, useFindings, useJob } from './job-context';
import { STEPS, stepsOf, type StepName } from './steps';
import { Ticket } from './ticket';

const PLAY_KEYS = {
  ' ': togglePlay,
  q: () => stepFrames(-1),
  w: () => stepFrames(1),
  'Shift+q': () => stepFrames(-10),
  'Shift+w': () => stepFrames(10),
};

/** What every page of a job stands in: the job itself, its player, and on a wide screen its sheet. */
export function JobShell({ id, children }: { id: string; children: ReactNode }) {
  const loaded = useJobs((state) => state.loaded);
  const job = useJobs((state) => state.files[id]?.job);
  const router = useRouter();
  if (!loaded) return null;
  if (!job) {
    return (
      <Screen title="No such job">
        <Notice
          standing="stop"
          title="This job is not in this browser."
          actions={
            <Button mode="contained" onPress={() => router.replace('/')}>
              All jobs
            </Button>
          }
        >
          It was deleted, or it was made in another browser.
        </Notice>
      </Screen>
    );
  }
  return (
    <JobContext.Provider value={job}>
      <WithPlayer job={job}>{children}</WithPlayer>
    </JobContext.Provider>
  );
}

function WithPlayer({ job, children }: { job: Job; children: ReactNode }) {
  const [there, setThere] = useState(true);
  const { fingerprint } = job.master;
  const bringing = useBringIn((state) => state.fileName);
  useEffect(() => {
    void hasBytes(job.master).then(setThere);
    // The fingerprint stands for the master, and a file being brought in may be the one that is missing.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [fingerprint, bringing]);
  useEffect(() => {
    if (there) playJob(job);
  }, [there, job]);
  useEffect(() => leavePlayer, []);
  useKeys(PLAY_KEYS);
  const wide = useWindowDimensions().width >= WIDE;
  return (
    <View style={styles.shell}>
      {wide && <SideSheet />}
      <View style={styles.main}>
        <Troubles job={job} there={there} />
        {children}
      </View>
    </View>
  );
}

/** What stands over every page of a job when something is wrong with it. */
function Troubles({ job, there }: { job: Job; there: boolean }) {
  const save = useJobs((state) => state.saveTrouble);
  const player = usePlayer((state) => state.trouble);
  const bringIn = useBringIn((state) => state.trouble);
  const bringing = useBringIn((state) => state.fileName);
  if (there && !save && !player && !bringing) return null;
  const again = async () => {
    if (job.id === DEMO_JOB) return openDemo();
    const file = await pickVideo();
    return file ? bringBack(job, file) : null;
  };
  return (
    <View style={styles.troubles}>
      {save && <TroubleNotice trouble={save} />}
      {player && there && <TroubleNotice trouble={player} />}
      {bringing && <BringInProgress />}
      {!there && bringIn && <TroubleNotice trouble={bringIn} />}
      {!there && !bringing && (
        <TroubleNotice
          trouble={{ code: 'master-gone', values: { file: job.master.fileName } }}
          actions={
            <Button mode="contained" onPress={() => void again()}>
              {job.id === DEMO_JOB ? 'Copy the demo in again' : `Find ${job.master.fileName}`}
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
      <Ticket jobId={job.id} steps={stepsOf(job, findings)} current={current} />
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
  troubles: { padding: space.m, gap: space.s },
});
