import { useRouter } from 'expo-router';
import { useCallback, useEffect, useState } from 'react';
import { Image, StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { bytesLabel } from '@core/figures/figures';
import {
  DEMO_JOB,
  demoAddress,
  dismissBringIn,
  dismissJobFile,
  loadDemo,
  openDemo,
  takeFile,
  takeJobFile,
  useBringIn,
  useJobFiles,
} from '@state/files';
import { allReport, checkAllJobs, useChecks } from '@state/check';
import { useConvert } from '@state/master';
import { useJobs, useSheets } from '@state/job';
import { ReportButtons } from '../check/report-buttons';
import { theme, type ThemeChoice, useStorageRoom } from '@state/app';
import { Choice } from '../parts/choice';
import { Notice, TroubleNotice } from '../parts/notice';
import { pickJob, pickVideo, saveFile } from '../parts/pick-file';
import { Screen } from '../parts/screen';
import { useDrop } from '../parts/use-drop';
import { Body, Heading, Soft } from '../parts/words';
import { colours, space, card } from '../theme/tokens';
import { BringInProgress } from './bring-in-progress';
import { ConvertOffer } from './convert-offer';
import { JobFileProgress } from './job-file-progress';
import { JobList } from './job-list';
import { NewerNotice, OnThisDevice, useShared } from './on-this-device';
import { SoundChoice } from './sound-choice';

/** The jobs are judged when the list has not changed for this long, in milliseconds. */
const CALM = 400;

const THEMES: readonly { value: ThemeChoice; label: string }[] = [
  { value: 'device', label: 'As on this device' },
  { value: 'light', label: 'Light' },
  { value: 'dark', label: 'Dark' },
];

/** The job list: every job, the demo, and the way to bring a video in. */
export function HomeScreen() {
  const router = useRouter();
  const listed = useJobs((state) => state.listed);
  const fileName = useBringIn((state) => state.fileName);
  const demo = useBringIn((state) => state.demo);
  const sheets = useSheets((state) => state.sheets);
  const use = useStorageRoom(listed)?.used ?? null;
  const themed = theme.use((state) => state.value);
  useEffect(() => void loadDemo(), []);
  useEffect(() => {
    const timer = setTimeout(() => void checkAllJobs(), CALM);
    return () => clearTimeout(timer);
  }, [listed, sheets]);
  const enter = useCallback(
    async (coming: Promise<string | null>) => {
      const id = await coming;
      if (id) router.push(`/job/${id}`);
    },
    [router],
  );
  const take = useCallback((file: File) => enter(takeFile(file)), [enter]);
  // Of several none is entered: each stands in the list.
  const takeAll = useCallback(
    async (files: readonly File[]) => {
      const [file] = files;
      if (file && files.length === 1) return take(file);
      for (const one of files) await takeFile(one);
    },
    [take],
  );
  const lost = useShared(takeAll);
  const drop = useCallback((files: readonly File[]) => void takeAll(files), [takeAll]);
  const over = useDrop(drop);
  const pick = async () => {
    const file = await pickVideo();
    if (file) await take(file);
  };
  const openJobFile = async () => {
    const file = await pickJob();
    if (file) await enter(takeJobFile(file));
  };
  return (
    <Screen
      title="Gusset"
      subtitle="Clips cut and framed from a finished edit"
      tray={
        <Button
          mode="contained"
          disabled={fileName !== null}
          onPress={() => void pick()}
          contentStyle={styles.main}
        >
          Bring in a video
        </Button>
      }
    >
      <NewerNotice />
      {lost && (
        <Notice standing="warn" title="The shared video did not come through">
          Share it once more, or bring it in from here. It may have been larger than this browser has room
          for.
        </Notice>
      )}
      <Alerts />
      <SoundChoice onJob={enter} />
      <ConvertOffer onFile={(file) => void take(file)} />
      <BringInProgress />
      <JobFileProgress />
      <JobList />
      {demo && !listed[DEMO_JOB] && (
        <View style={styles.demo}>
          <Image
            source={{ uri: demoAddress(demo.poster) }}
            aria-label="A frame of the demo"
            style={styles.poster}
          />
          <Heading>{demo.title}</Heading>
          <Body>The demo job: a finished edit of {demo.shots.length} shots, ready to open.</Body>
          <Button mode="outlined" disabled={fileName !== null} onPress={() => void enter(openDemo())}>
            Open the demo
          </Button>
        </View>
      )}
      <View style={[styles.drop, over && styles.over]}>
        <Soft>
          {over
            ? 'Drop to bring in'
            : 'Drop files anywhere on this page: MP4, MOV, WebM or MKV, or a job that was saved'}
        </Soft>
      </View>
      <Button style={styles.left} icon="file-upload-outline" onPress={() => void openJobFile()}>
        Open a job from a file
      </Button>
      {Object.keys(listed).length > 0 && (
        <ReportButtons about="Every finding of every clip of every job." make={allReport} />
      )}
      <Button style={styles.left} icon="ruler-square" onPress={() => router.push('/rules')}>
        Rule sheets of the outlets
      </Button>
      <Button style={styles.left} icon="account-multiple-outline" onPress={() => router.push('/accounts')}>
        Accounts at the outlets
      </Button>
      <Button style={styles.left} icon="calendar-week" onPress={() => router.push('/schedule')}>
        Schedule of posts
      </Button>
      <Button style={styles.left} icon="history" onPress={() => router.push('/history')}>
        History of posts
      </Button>
      <View style={styles.theme}>
        <Soft>Theme</Soft>
        <Choice label="Theme" value={themed} options={THEMES} onChange={theme.choose} />
      </View>
      <OnThisDevice />
      {use !== null && <Soft>{bytesLabel(use)} used in this browser. Nothing leaves it until you post.</Soft>}
    </Screen>
  );
}

/** Alerts on the first page: a file that was refused, jobs that do not open. */
function Alerts() {
  const trouble = useBringIn((state) => state.trouble);
  const job = useJobFiles((state) => state.trouble);
  const twin = useBringIn((state) => state.twin);
  const aside = useJobs((state) => state.aside);
  const unsaved = useJobs((state) => state.saveTroubles);
  const checks = useChecks((state) => state.trouble);
  const judging = useChecks((state) => state.progress);
  // What can be converted is offered plainly instead.
  const able = useConvert((state) => state.able);
  const [hidden, setHidden] = useState<string[]>([]);
  const close = <Button onPress={dismissBringIn}>Close</Button>;
  return (
    <>
      {Object.entries(unsaved).map(([id, one]) => (
        <TroubleNotice key={id} trouble={one} />
      ))}
      {checks && <TroubleNotice trouble={checks} />}
      {judging && <Soft role="status">{`Judging the clips: ${judging.done} of ${judging.total} jobs…`}</Soft>}
      {trouble && able === false && <TroubleNotice trouble={trouble} actions={close} />}
      {job && <TroubleNotice trouble={job} actions={<Button onPress={dismissJobFile}>Close</Button>} />}
      {twin && (
        <Notice standing="note" title="The same file is in another job." actions={close}>
          {`“${twin.title}” was made from it too. The file is stored once for both.`}
        </Notice>
      )}
      {aside
        .filter((job) => !hidden.includes(job.id))
        .map((job) => (
          <Notice
            key={job.id}
            standing="warn"
            title={
              job.problem === 'newer' ? 'A job was saved by a newer Gusset.' : 'A stored job is damaged.'
            }
            actions={
              <>
                <Button mode="outlined" onPress={() => saveFile(new File([job.text], `${job.id}.json`))}>
                  Save a copy of it
                </Button>
                <Button onPress={() => setHidden((keys) => [...keys, job.id])}>Hide</Button>
              </>
            }
          >
            {job.problem === 'newer'
              ? `It is kept as it is (${job.detail}). Open it with the newer program.`
              : `It cannot be opened (${job.detail}), and is kept as it is. Your other jobs are not touched.`}
          </Notice>
        ))}
    </>
  );
}

const styles = StyleSheet.create({
  main: { minHeight: 52 },
  left: { alignSelf: 'flex-start' },
  theme: { gap: space.xs, maxWidth: 480 },
  demo: {
    gap: space.s,
    padding: space.l,
    ...card,
    alignItems: 'flex-start',
  },
  poster: { alignSelf: 'stretch', aspectRatio: 16 / 9, maxHeight: 360, backgroundColor: colours.hairline },
  drop: {
    padding: space.l,
    borderWidth: 2,
    borderStyle: 'dashed',
    borderColor: colours.edge,
    borderRadius: 6,
    alignItems: 'center',
  },
  over: { borderColor: colours.woad, backgroundColor: colours.woadWash },
});
