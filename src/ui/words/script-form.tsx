import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { layScriptOnClip, stopScript, useScript } from '@state/words';
import { seekSpeech, stopSpeech, useSpeech } from '@state/master';
import { useJob } from '../job/job-context';
import { TroubleNotice } from '../parts/notice';
import { StripBar } from '../parts/strip-bar';
import { TextArea } from '../parts/text-area';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import type { CaptionTools } from './use-captions';
import { useClipTime } from './use-clip-time';

/** Form for a script: it is cut into captions and laid on the speech that is found. */
export function ScriptForm({ captions }: { captions: CaptionTools }) {
  const job = useJob();
  const { masters } = job;
  const { frames } = useClipTime();
  const [script, setScript] = useState('');
  const { spoken, timeline, listed } = captions;
  const used = masters.filter((master) => timeline.cut.some((range) => range.master === master.id));
  const { progress, trouble } = useScript();
  const make = () => {
    const { limits } = captions.captions;
    void layScriptOnClip(job, { script, spoken, whole: frames, limits, rate: timeline.rate }, timeline);
  };
  return (
    <View style={styles.panel}>
      <TextArea
        label="Script: what is spoken"
        value={script}
        rows={3}
        onChange={setScript}
        placeholder="Paste what is spoken. A new line begins a new caption."
      />
      {used.map((master) => (
        <Listening key={master.id} master={master} heard={spoken.length} />
      ))}
      {progress ? (
        <>
          <StripBar label="Laying the script" done={progress.done} total={progress.total} />
          <Button onPress={stopScript}>Stop</Button>
        </>
      ) : (
        <Button mode="contained" disabled={script.trim() === ''} onPress={make}>
          {spoken.length > 0 ? 'Lay the script on the speech' : 'Spread the script over the clip'}
        </Button>
      )}
      {trouble && <TroubleNotice trouble={trouble} />}
      {listed.length > 0 && script.trim() !== '' && (
        <Soft>They take the place of the captions that are there; undo brings those back.</Soft>
      )}
    </View>
  );
}

/** How far the search for speech in a master is. */
function Listening({
  master,
  heard,
}: {
  master: ReturnType<typeof useJob>['masters'][number];
  heard: number;
}) {
  const state = useSpeech((all) => all[master.fingerprint]);
  if (master.soundTrack === null) return <Soft>{`${master.fileName} has no sound.`}</Soft>;
  if (!state || state.state === 'stopped') {
    return (
      <Button mode="outlined" icon="account-voice" onPress={() => seekSpeech(master)}>
        {`Find the speech in ${master.fileName}`}
      </Button>
    );
  }
  if (state.state === 'running') {
    return (
      <View style={styles.panel}>
        <StripBar label="Search for speech" done={state.done} total={state.total} />
        <Button onPress={() => stopSpeech(master.fingerprint)}>Stop the search</Button>
      </View>
    );
  }
  if (state.state === 'failed') {
    return (
      <>
        <TroubleNotice trouble={state.trouble} />
        <Soft>{heard > 0 ? 'Until then its pauses tell where somebody speaks.' : ''}</Soft>
      </>
    );
  }
  return <Soft>{`Speech was found in ${master.fileName}: the green marks on the strip.`}</Soft>;
}

const styles = StyleSheet.create({ panel: { gap: space.s } });
