import { useEffect } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { bytesLabel } from '@core/figures/figures';
import { lengthLabel } from '@core/time/timecode';
import { troubleWords } from '@core/trouble/trouble';
import { dismissBringIn, useBringIn } from '@state/files';
import { cancelConversion, canConvert, convertFile, useConvert } from '@state/master';
import { Notice, TroubleNotice } from '../parts/notice';
import { StripBar } from '../parts/strip-bar';
import { Body, Soft } from '../parts/words';
import { card, space } from '../theme/tokens';

const STAGES = {
  send: 'Sending it to the server',
  wait: 'Waiting for its turn',
  convert: 'Converting',
  fetch: 'Fetching the copy',
} as const;

/** Offers to convert a refused file on the server, where that helps, and shows how far it is. */
export function ConvertOffer({ onFile }: { onFile: (file: File) => void }) {
  const trouble = useBringIn((state) => state.trouble);
  const refused = useBringIn((state) => state.refused);
  const stage = useConvert((state) => state.stage);
  const failed = useConvert((state) => state.trouble);
  const able = useConvert((state) => state.able);
  useEffect(() => {
    let gone = false;
    useConvert.setState({ able: trouble ? null : false });
    void (trouble ? canConvert(trouble) : Promise.resolve(false)).then(
      (can) => !gone && useConvert.setState({ able: can }),
    );
    return () => {
      gone = true;
    };
  }, [trouble]);
  if (stage) {
    const figure = (value: number) => (stage.name === 'convert' ? lengthLabel(value) : bytesLabel(value));
    return (
      <View style={styles.box}>
        <Body>{STAGES[stage.name]}</Body>
        <StripBar label={STAGES[stage.name]} done={stage.done} total={stage.total ?? 0} />
        <View style={styles.row}>
          <Soft style={styles.grow}>
            {stage.name === 'wait' ? '' : figure(stage.done)}
            {stage.total === null ? '' : ` of ${figure(stage.total)}`}
          </Soft>
          <Button onPress={cancelConversion}>Cancel</Button>
        </View>
      </View>
    );
  }
  const convert = async () => {
    if (!refused) return;
    const copy = await convertFile(refused);
    if (copy) onFile(copy);
  };
  return (
    <>
      {failed && <TroubleNotice trouble={failed} />}
      {able && refused && trouble && (
        <Notice
          standing="note"
          title={troubleWords(trouble).what}
          actions={
            <>
              <Button mode="contained" onPress={() => void convert()}>
                Convert it on the server
              </Button>
              <Button onPress={dismissBringIn}>Close</Button>
            </>
          }
        >
          {`${troubleWords(trouble).todo} Or have ${refused.name} converted to H.264 by the server here, with its size, rate and timing kept. ` +
            'The file goes to that server for it, and is deleted there afterwards.'}
        </Notice>
      )}
    </>
  );
}

const styles = StyleSheet.create({
  box: { gap: space.s, padding: space.m, ...card },
  row: { flexDirection: 'row', alignItems: 'center' },
  grow: { flex: 1 },
});
