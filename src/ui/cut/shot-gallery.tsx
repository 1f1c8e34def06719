import type { Fingerprint } from '@core/master/fingerprint';
import { useEffect, useMemo, useState } from 'react';
import { Image, Pressable, StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { isPicked, togglePickedShot } from '@core/cut/pick-shots';
import type { Shot } from '@core/cut/shot';
import { listSubjectKinds, createEvidence } from '@core/follow/evidence';
import { fileRange } from '@core/job/follow-shot';
import type { Speech } from '@core/speech/speech';
import { sortByMovement, sortBySpeech, type ShotFacts, shotFacts } from '@core/pass/shot-facts';
import { lengthLabel, formatTimecode } from '@core/time/timecode';
import { troubleWords } from '@core/trouble/trouble';
import { loadEvidence, useEvidence } from '@state/framing';
import { dispatch } from '@state/job';
import {
  ensureSpeech,
  selectPass,
  seekSpeech,
  selectSpeech,
  stopSpeech,
  usePasses,
  useSpeech,
} from '@state/master';
import { player } from '@state/player';
import { useStills } from '@state/picture';
import { KIND_WORDS } from '../frame/subject-words';
import { useJob } from '../job/job-context';
import { Choice } from '../parts/choice';
import { Notice } from '../parts/notice';
import { StripBar } from '../parts/strip-bar';
import { Tool } from '../parts/tool';
import { Heading, Soft, Strong } from '../parts/words';
import { card, colours, space, TARGET } from '../theme/tokens';
import type { CutTools } from './use-cut';

const HEIGHT = 76;
/** So many shots are shown before more are asked for. */
const PAGE = 24;
/** So many of the liveliest are played one after another. */
const PROPOSED = 5;

type Order = 'time' | 'lively' | 'spoken';
const ORDERS: readonly { value: Order; label: string }[] = [
  { value: 'time', label: 'As they come' },
  { value: 'lively', label: 'Liveliest first' },
  { value: 'spoken', label: 'Most speech first' },
];

/** Every shot with what is known of it: a tap keeps it in the cut, or takes it out again. */
export function ShotGallery({ tools }: { tools: CutTools }) {
  const job = useJob();
  const { source, shots, cut } = tools;
  const [order, setOrder] = useState<Order>('time');
  const [most, setMost] = useState(PAGE);
  const pass = usePasses((all) => selectPass(all[source.fingerprint]));
  const speech = useMasterSpeech(source.id, pass !== null);
  const facts = useMemo(
    () => shots.map((shot) => shotFacts({ pass, speech }, shot, source.rate)),
    [pass, speech, shots, source.rate],
  );
  const lively = useMemo(() => sortByMovement(facts), [facts]);
  const spoken = useMemo(() => sortBySpeech(facts), [facts]);
  const places = useMemo(
    () => ({ time: shots.map((_, i) => i), lively, spoken })[order],
    [order, shots, lively, spoken],
  );
  const shown = useMemo(() => places.slice(0, most), [places, most]);
  const frames = useMemo(() => shots.map((shot) => Math.floor((shot.in + shot.out) / 2)), [shots]);
  const stills = useStills(
    source,
    useMemo(() => shown.map((i) => frames[i] ?? 0), [shown, frames]),
    HEIGHT,
  );
  const who = useWho(source.fingerprint);
  const pick = (shot: Shot) =>
    dispatch(job.id, { type: 'set-cut', act: 'add', cut: togglePickedShot(cut, shot, source.frames) });
  const best = order === 'spoken' ? spoken.filter((i) => (facts[i]?.spoken ?? 0) > 0) : lively;
  const proposed = best
    .slice(0, PROPOSED)
    .sort((a, b) => a - b)
    .flatMap((i) => shots[i] ?? []);
  return (
    <View style={styles.gallery}>
      <Heading>{`All shots: ${shots.length}`}</Heading>
      <Choice
        label="Order of the shots"
        value={order}
        options={source.audio ? ORDERS : ORDERS.filter(({ value }) => value !== 'spoken')}
        onChange={setOrder}
      />
      <View style={styles.row}>
        <Button
          icon="play"
          mode="outlined"
          disabled={proposed.length === 0}
          onPress={() =>
            player.playCut(proposed.map(({ master, in: first, out }) => ({ master, in: first, out })))
          }
        >
          {`Play the ${proposed.length} ${order === 'spoken' ? 'with most speech' : 'liveliest'}`}
        </Button>
        <SpeechSearch master={source.id} />
      </View>
      <View style={styles.grid}>
        {shown.map((i) => {
          const [shot, fact] = [shots[i], facts[i]];
          if (!shot || !fact) return null;
          const on = isPicked(cut, shot);
          const words = [lengthLabel(fact.seconds), ...factWords(fact), ...who(job, shot)].join(', ');
          const name = `${i + 1}, from ${formatTimecode(shot.in, source.rate)}`;
          return (
            <Pressable
              key={shot.id}
              role="checkbox"
              aria-checked={on}
              aria-label={`Shot ${name} ${words}${on ? ', kept' : ''}`}
              onPress={() => pick(shot)}
              style={[styles.shot, on && styles.on]}
            >
              <View style={styles.still}>
                {stills[frames[i] ?? -1] !== undefined && (
                  <Image source={{ uri: stills[frames[i] ?? -1] }} style={styles.image} resizeMode="cover" />
                )}
              </View>
              <Strong style={styles.name}>{`${name} `}</Strong>
              <Soft>{on ? `${words}, kept` : words}</Soft>
            </Pressable>
          );
        })}
      </View>
      {places.length > most && (
        <Button mode="outlined" onPress={() => setMost(most + PAGE)}>
          {`Show ${Math.min(PAGE, places.length - most)} more shots`}
        </Button>
      )}
    </View>
  );
}

/** Movement above this is plain to see, in grey levels; a share of sound above this is mostly sound. */
const LIVELY = 4;
const MOSTLY = 0.7;
/** Shares of a shot above which there is some speech in it, and mostly speech. */
const SPEECH = { some: 0.08, mostly: 0.5 };

function speechWords(spoken: number): string {
  if (spoken < SPEECH.some) return 'no speech';
  return spoken < SPEECH.mostly ? 'some speech' : 'mostly speech';
}

function factWords({ motion, loudness, sounding, spoken }: ShotFacts): string[] {
  return [
    ...(motion === null ? [] : [motion >= LIVELY ? 'lively' : 'calm']),
    ...(loudness === null ? [] : [`up to ${loudness.toFixed(0)} LUFS`]),
    ...(sounding !== null && sounding < MOSTLY ? ['with pauses'] : []),
    ...(spoken === null ? [] : [speechWords(spoken)]),
  ];
}

/** Where somebody speaks in a master; it is listened to once it was looked at. Null before that. */
function useMasterSpeech(id: string, looked: boolean): Speech | null {
  const master = useJob().masters.find((master) => master.id === id);
  const speech = useSpeech((all) => (master ? selectSpeech(all[master.fingerprint], master) : null));
  useEffect(() => {
    if (master && looked) ensureSpeech(master);
  }, [master, looked]);
  return speech;
}

/** How far the search for speech is, or why there is none. */
function SpeechSearch({ master: id }: { master: string }) {
  const master = useJob().masters.find((master) => master.id === id);
  const search = useSpeech((all) => all[master?.fingerprint ?? '']);
  if (!master || !search || search.state === 'done') return null;
  if (search.state === 'running')
    return (
      <View style={styles.search}>
        <View style={styles.grow}>
          <Soft>Listening for speech</Soft>
          <StripBar label="Listening for speech" done={search.done} total={search.total} />
        </View>
        <Tool icon="close" label="Stop listening" words="" onPress={() => stopSpeech(master.fingerprint)} />
      </View>
    );
  if (search.state === 'stopped') return <Button onPress={() => seekSpeech(master)}>Look for speech</Button>;
  const words = troubleWords(search.trouble);
  return (
    <Notice
      standing="note"
      title="Speech was not looked for"
      actions={<Button onPress={() => seekSpeech(master)}>Look for speech again</Button>}
    >
      {`${words.what} ${words.todo}`}
    </Notice>
  );
}

/** Who is in a shot, as far as following has looked at it. */
function useWho(fingerprint: Fingerprint) {
  const evidence = useEvidence((all) => all[fingerprint]);
  useEffect(() => void loadEvidence({ fingerprint }), [fingerprint]);
  return (job: Parameters<typeof fileRange>[0], shot: Shot): string[] => {
    const kinds = listSubjectKinds(evidence ?? createEvidence(fingerprint), fileRange(job, shot));
    return kinds.map((kind) => KIND_WORDS[kind].toLowerCase());
  };
}

const styles = StyleSheet.create({
  gallery: { gap: space.s },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.m, minHeight: TARGET },
  // As high while it is searched as afterwards: nothing moves from under the finger.
  search: { flex: 1, flexDirection: 'row', alignItems: 'center', minWidth: 150, height: TARGET },
  grow: { flex: 1 },
  grid: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  shot: { width: 168, padding: space.xs, gap: 2, ...card },
  on: { borderColor: colours.woad, borderWidth: 2, backgroundColor: colours.woadWash },
  still: { height: HEIGHT, backgroundColor: colours.hairline, overflow: 'hidden' },
  image: { width: '100%', height: '100%' },
  name: { fontSize: 13 },
});
