import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { Image, type LayoutChangeEvent, StyleSheet, useWindowDimensions, View } from 'react-native';
import { Button } from 'react-native-paper';
import { fixCommand } from '@core/check/fixes';
import { findShot } from '@core/cut/master-shots';
import { planPanes, shotPanes } from '@core/render/plan';
import { findNextStep, listSteps } from '@core/steps/steps';
import { dispatch } from '@state/job';
import { useStills } from '@state/picture';
import { choosePoster } from '@core/job/document';
import { POSTER_HEIGHT } from '../home/job-card';
import { EdgeQuestion } from '../master/edge-question';
import { Facts } from '../parts/facts';
import { Screen } from '../parts/screen';
import { Heading } from '../parts/words';
import { canvasMark } from '../theme/dyes';
import { colours, space, WIDE, card } from '../theme/tokens';
import { toMasterFacts } from './master-facts';
import { BackTool, HistoryTools } from './header-tools';
import { useClip, useFindings, useJob, useProblems, useSource } from './job-context';
import { StepNav } from './step-nav';
import { WindowOverlay } from './window-overlay';
import { useCanvasLabel, useRuleSheets } from './use-target';

/** The job sheet: the master with its window, its facts, and where every step stands. */
export function SheetScreen() {
  const job = useJob();
  const router = useRouter();
  const source = useSource();
  const findings = useFindings();
  const problems = useProblems(job.masters);
  const wide = useWindowDimensions().width >= WIDE;
  const sheets = useRuleSheets();
  const next = findNextStep(job, findings, sheets);
  const act = () => {
    if (next.fix) dispatch(job.id, fixCommand(next.fix));
    else router.push(`/job/${job.id}/${next.step}`);
  };
  return (
    <Screen
      title={job.title}
      subtitle="Saved in this browser"
      leading={wide ? undefined : <BackTool to="list" />}
      trailing={<HistoryTools />}
      tray={
        <Button mode="contained" onPress={act} contentStyle={styles.act}>
          {next.label}
        </Button>
      }
    >
      <View style={wide ? styles.poster : undefined}>
        <Poster />
      </View>
      {job.masters.map((master) => (
        <EdgeQuestion key={master.id} master={master} />
      ))}
      {!wide && <StepNav jobId={job.id} steps={listSteps({ job, sheets, findings, problems })} />}
      <View style={styles.master}>
        <Heading>Master</Heading>
        <Facts facts={toMasterFacts(source)} />
      </View>
    </Screen>
  );
}

/** Most rows of the poster, in pixels. */
const POSTER_ROWS = 360;

/** A frame of the master with the window of the canvas on it. */
function Poster() {
  const labelOf = useCanvasLabel();
  const job = useJob();
  const [width, setWidth] = useState(0);
  const clip = useClip();
  const { source, frame } = choosePoster(job);
  const frames = useMemo(() => [frame], [frame]);
  const poster = useStills(source, frames, POSTER_HEIGHT)[frame];
  const { picture } = source;
  const height = Math.min(width * (picture.height / picture.width), POSTER_ROWS);
  const shown = { width: height * (picture.width / picture.height), height };
  const shot = findShot(job.edit.shots, source, frame);
  const [active, ...others] = [...clip.canvases]
    .sort((a, b) => Number(b.id === clip.canvas) - Number(a.id === clip.canvas))
    .flatMap((canvas) =>
      planPanes(shotPanes(canvas, job.edit.framings, shot, source), frame).map(({ window }, i) => ({
        key: `${canvas.id}-${i}`,
        window,
        mark: canvasMark(canvas.dye),
        name: labelOf(canvas),
      })),
    );
  const measure = (event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width);
  return (
    <View onLayout={measure} style={styles.measure}>
      <View style={[styles.picture, shown]}>
        {poster !== undefined && (
          <Image
            source={{ uri: poster }}
            aria-label="A frame of the master"
            style={shown}
            resizeMode="stretch"
          />
        )}
        {width > 0 && active && <WindowOverlay {...shown} active={active} others={others} />}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  act: { minHeight: 52 },
  poster: { maxWidth: 800 },
  measure: { alignItems: 'center' },
  picture: { backgroundColor: colours.hairline },
  master: {
    gap: space.s,
    padding: space.m,
    ...card,
  },
});
