import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { compareRates, rateLabel } from '@core/time/frame-rate';
import { addMasterFile, useBringIn } from '@state/files';
import { player } from '@state/player';
import { useJob, useSource } from '../job/job-context';
import { JobPage } from '../job/job-page';
import { toAllMasterFacts } from '../job/master-facts';
import { SoundChoice } from '../home/sound-choice';
import { Facts } from '../parts/facts';
import { TroubleNotice } from '../parts/notice';
import { pickVideo } from '../parts/pick-file';
import { Transport } from '../parts/transport';
import { Heading, Soft, Strong } from '../parts/words';
import { card, colours, space, TARGET } from '../theme/tokens';
import { Diagnosis } from './diagnosis';
import { LightCard } from './light-card';
import { LivePicture } from './live-picture';
import { PassCard } from './pass-card';
import { QualityChoice } from './quality-choice';

/** The masters of a job: what each is, what is wrong with it, and what sets it right. */
export function MasterScreen() {
  const source = useSource();
  return (
    <JobPage title="Master" subtitle={source.fileName} tray={<AddMaster />}>
      <MasterRow />
      <LivePicture />
      <Transport />
      <PassCard />
      <Diagnosis />
      <LightCard />
      <QualityChoice />
      <View style={styles.facts}>
        <Heading>Facts</Heading>
        <Facts label="Facts" facts={toAllMasterFacts(source)} />
      </View>
    </JobPage>
  );
}

/** The job's masters, when there is more than one. */
function MasterRow() {
  const { masters } = useJob();
  const source = useSource();
  if (masters.length < 2) return null;
  return (
    <View role="group" aria-label="Masters" style={styles.masters}>
      {masters.map((master) => {
        const on = master.id === source.id;
        return (
          <Pressable
            key={master.id}
            role="button"
            aria-label={`Master ${master.fileName}`}
            aria-pressed={on}
            onPress={() => player.showFrame(0, master.id)}
            style={[styles.master, on && styles.on]}
          >
            <Strong numberOfLines={1}>{master.fileName}</Strong>
            <Soft>
              {master.picture.width}×{master.picture.height}, {rateLabel(master.rate)} fps
              {compareRates(master.rate, (masters[0] ?? master).rate) === 0 ? '' : ', another rate'}
            </Soft>
          </Pressable>
        );
      })}
    </View>
  );
}

/** Brings another file into the job. */
function AddMaster() {
  const job = useJob();
  const busy = useBringIn((state) => state.fileName !== null);
  const trouble = useBringIn((state) => state.trouble);
  const [asked, setAsked] = useState(false);
  const add = async () => {
    const file = await pickVideo();
    if (!file) return;
    setAsked(true);
    const id = await addMasterFile(job, file);
    if (id) player.showFrame(0, id);
  };
  return (
    <>
      {asked && trouble && <TroubleNotice trouble={trouble} />}
      {asked && <SoundChoice onJob={(coming) => void coming.then((id) => id && player.showFrame(0, id))} />}
      <Button mode="outlined" icon="plus" disabled={busy} onPress={() => void add()}>
        Add another master
      </Button>
    </>
  );
}

const styles = StyleSheet.create({
  masters: { gap: space.s },
  master: { minHeight: TARGET, padding: space.m, ...card },
  on: { borderColor: colours.woad, borderWidth: 2, padding: space.m - 1, backgroundColor: colours.woadWash },
  facts: { gap: space.s, padding: space.m, ...card },
});
