import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { bitsLabel, bytesLabel } from '@core/figures/figures';
import type { AnalysisResult } from '@core/pass/pass';
import { runPassAgain, stopPass, usePasses } from '@state/master';
import { useJob, useSource } from '../job/job-context';
import { Facts } from '../parts/facts';
import { TroubleNotice } from '../parts/notice';
import { StripBar } from '../parts/strip-bar';
import { Body, Heading, Soft } from '../parts/words';
import { card, space } from '../theme/tokens';
import { Graph } from './graph';

/** Silence is drawn at this level, in LUFS: what lies below tells nothing. */
const SILENT = -50;

/** How far the look at the master is, and what it found. */
export function PassCard() {
  const { masters } = useJob();
  const source = useSource();
  const pass = usePasses((all) => all[source.fingerprint]);
  const master = masters.find((master) => master.id === source.id);
  if (!master) return null;
  const again = (
    <Button mode="outlined" onPress={() => runPassAgain(master)}>
      Analyse it again
    </Button>
  );
  return (
    <View style={styles.card}>
      <Heading>What was found in it</Heading>
      {(pass === undefined || pass.state === 'waiting') && <Soft>Waiting for its turn.</Soft>}
      {pass?.state === 'running' && (
        <>
          <StripBar label="Analysing the master" done={pass.done} total={pass.total} />
          <Soft>{leftWords(pass)}</Soft>
          <Body>You can watch, cut and frame meanwhile.</Body>
          <Button style={styles.left} onPress={() => stopPass(source.fingerprint)}>
            Stop
          </Button>
        </>
      )}
      {pass?.state === 'stopped' && (
        <>
          <Body>Stopped. Without it there is no proxy, and shots, bars and sound are not known.</Body>
          {again}
        </>
      )}
      {pass?.state === 'failed' && <TroubleNotice trouble={pass.trouble} actions={again} />}
      {pass?.state === 'done' && <Found pass={pass.pass} />}
    </View>
  );
}

function leftWords({ done, total, left }: { done: number; total: number; left: number | null }): string {
  const share = `Frame ${done} of ${total}`;
  return left === null || done === 0 ? `${share}.` : `${share}, about ${Math.ceil(left)} s left.`;
}

const level = (value: number | null, unit: string): string =>
  value === null ? 'silent' : `${value.toFixed(1)} ${unit}`;

function Found({ pass }: { pass: AnalysisResult }) {
  const { shots, sound, proxy } = pass;
  const kinds = (kind: string) => shots.filter((shot) => shot.start?.kind === kind).length;
  const facts = [
    {
      name: 'Shots',
      value: `${shots.length}: ${kinds('cut')} cuts, ${kinds('dissolve')} dissolves, ${kinds('fade')} fades`,
    },
    { name: 'Proxy', value: `${proxy.width}×${proxy.height}, ${bytesLabel(proxy.bytes)}` },
    ...(sound
      ? [
          {
            name: 'Loudness',
            value: `${level(sound.integrated, 'LUFS')}, loudest ${level(sound.loudest, 'LUFS')}`,
          },
          { name: 'True peak', value: level(sound.truePeak, 'dBTP') },
          { name: 'Pauses', value: String(sound.pauses.length) },
        ]
      : []),
    ...pass.otherTracks.map((track, i) => ({
      name: `Sound track ${i + 2}, not used`,
      value: track
        ? `${level(track.integrated, 'LUFS')}, peak ${level(track.truePeak, 'dBTP')}`
        : 'cannot be decoded here',
    })),
  ];
  return (
    <>
      <Facts facts={facts} />
      <Graph
        label="Bit rate of the picture, second by second"
        values={pass.bitsBySecond}
        format={(value) => bitsLabel(value)}
      />
      {sound && (
        <Graph
          label="Short-term loudness, second by second"
          values={sound.shortTerm.map((value) => Math.max(value ?? SILENT, SILENT))}
          format={(value) => `${value.toFixed(0)} LUFS`}
        />
      )}
    </>
  );
}

const styles = StyleSheet.create({
  card: { gap: space.s, padding: space.m, ...card },
  left: { alignSelf: 'flex-start' },
});
