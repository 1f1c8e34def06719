import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { planOfJob } from '@core/check/check';
import { bytesLabel } from '@core/figures/figures';
import { type Format, FORMATS } from '@core/rate/format';
import { listOwnFamilies } from '@core/render/overlays';
import { ownHash } from '@core/words/families';
import { useRenderServer, useExportQueue, forgetMasters } from '@state/export';
import { useClip, useJob, useCheckContext } from '../job/job-context';
import { OptionList } from '../parts/option-list';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { useEncoding } from './use-encoding';

/**
 * Fields that choose whether this browser or the server makes the file, and tell what of the person's lies on
 * the server.
 */
export function MakerFields() {
  const job = useJob();
  const clip = useClip();
  const { encoding, change } = useEncoding();
  const inQueue = useExportQueue((state) => Object.keys(state.running).length);
  const [forgotten, setForgotten] = useState(0);
  const server = useRenderServer(`${inQueue} ${forgotten}`);
  const used = new Set(clip.cut.map(({ master }) => master));
  const masters = job.masters.filter(({ id }) => used.has(id));
  const there = masters.filter(({ fingerprint }) => server.masters.includes(fingerprint));
  const missing = masters.filter((master) => !there.includes(master));
  const { sheets } = useCheckContext(job.masters);
  const families = listOwnFamilies(planOfJob(job, sheets).overlays);
  const fonts = families.flatMap(
    (family) => server.masters.find((print) => print.startsWith(ownHash(family))) ?? [],
  );
  const size = missing.reduce((sum, { bytes }) => sum + bytes, 0);
  const forget = async () => {
    // What did not work is still told to be there.
    await forgetMasters([...there.map(({ fingerprint }) => fingerprint), ...fonts]).catch(() => undefined);
    setForgotten((n) => n + 1);
  };
  const newFonts = families.length - fonts.length;
  const fontWords =
    newFonts === 0 ? '' : newFonts === 1 ? ', a font of yours' : `, ${newFonts} fonts of yours`;
  const goesUp =
    missing.length > 0
      ? `${missing.map(({ fileName }) => fileName).join(', ')} (${bytesLabel(size)})${fontWords} and this job go up to it. `
      : `Its masters are there already${fontWords && `; ${fontWords.slice(2)} and this job go up to it`}. `;
  const isServerOnly = encoding.format !== null && (FORMATS[encoding.format] as Format).lossless === true;
  const options = [
    { value: 'browser' as const, label: 'In this browser', about: 'Nothing leaves this machine' },
    ...(server.able || encoding.maker === 'server'
      ? [
          {
            value: 'server' as const,
            label: `On the server at ${globalThis.location.host}`,
            about: 'A finer encoder: two passes and B frames',
          },
        ]
      : []),
  ];
  return (
    <View style={styles.group}>
      <OptionList
        label="Made"
        value={encoding.maker}
        options={options}
        onChange={(maker) => change({ maker, ...(isServerOnly && { format: null }) })}
      />
      {encoding.maker === 'server' && (
        <Soft>{`${goesUp}They are deleted after a day without use, or when you say so.`}</Soft>
      )}
      {there.length + fonts.length > 0 && (
        <Button style={styles.left} icon="delete-outline" onPress={() => void forget()}>
          Delete from the server
        </Button>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s, alignSelf: 'stretch' },
  left: { alignSelf: 'flex-start' },
});
