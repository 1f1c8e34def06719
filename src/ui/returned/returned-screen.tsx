import { useLocalSearchParams } from 'expo-router';
import { useCallback, useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import type { ExportRecord } from '@core/job/records';
import { CHAT_NAME } from '@core/posting/chat';
import { factRows, type ReturnedFile, type Verdict, VERDICTS, judgeReturned } from '@core/proof/returned';
import { dismissReturned, lookAtFile, sendThroughChat, useReturned } from '@state/export';
import { useJob } from '../job/job-context';
import { JobPage } from '../job/job-page';
import type { Standing } from '../parts/mark';
import { Notice, TroubleNotice } from '../parts/notice';
import { pickVideo } from '../parts/pick-file';
import { SideBySide } from '../parts/side-by-side';
import { StripBar } from '../parts/strip-bar';
import { useDrop } from '../parts/use-drop';
import { Body, Figures, Heading, Soft } from '../parts/words';
import { card, colours, space } from '../theme/tokens';

const STANDINGS: Record<Verdict, Standing> = {
  same: 'pass',
  restamped: 'note',
  changed: 'warn',
  other: 'stop',
};
const STAGES: Record<string, string> = {
  send: `Sending it to ${CHAT_NAME}`,
  shrink: `${CHAT_NAME} makes it small`,
  hash: 'Reading both files',
  look: 'Looking at every frame',
  compare: 'Comparing pictures',
};

/** Says of a file that came back whether it is the export, or what was done to it. */
export function ReturnedScreen() {
  const job = useJob();
  const { file: id } = useLocalSearchParams<{ file?: string }>();
  const record = job.exports.find((known) => known.id === id && known.state === 'done');
  useEffect(() => dismissReturned, []);
  return (
    <JobPage title="Did it come through?" subtitle={record?.fileName ?? 'No such file'}>
      {record ? (
        <Look record={record} />
      ) : (
        <Soft>It was deleted, or never made here. Choose a file on the export page.</Soft>
      )}
    </JobPage>
  );
}

function Look({ record }: { record: ExportRecord }) {
  const { fileName, progress, result, trouble } = useReturned();
  const take = useCallback((file: File) => void lookAtFile(record, file), [record]);
  const [left, setLeft] = useState(0);
  const over = useDrop(
    useCallback(
      ([file, ...others]: File[]) => {
        setLeft(others.length);
        if (file) take(file);
      },
      [take],
    ),
  );
  const pick = async () => {
    const file = await pickVideo();
    if (file) take(file);
  };
  return (
    <>
      <Body>
        Take the file back from where it went (the phone, a chat, an outlet), and see whether it is still the
        one that left. It is looked at here, and goes nowhere.
      </Body>
      <View style={[styles.drop, over && styles.over]}>
        <Button
          mode="contained"
          icon="file-question-outline"
          disabled={progress !== null}
          onPress={() => void pick()}
        >
          Choose the file that came back
        </Button>
        <Soft>{over ? 'Drop it to look at it' : 'Or drop it anywhere on this page.'}</Soft>
      </View>
      <Button
        style={styles.left}
        icon="chat-processing-outline"
        disabled={progress !== null}
        onPress={() => void sendThroughChat(record)}
      >
        {`Try it: send it through ${CHAT_NAME}`}
      </Button>
      <Soft>{`${CHAT_NAME} is a stand-in that shrinks what is sent, as chat apps do.`}</Soft>
      {progress && (
        <View style={styles.group}>
          <StripBar label={STAGES[progress.stage] ?? ''} done={progress.done} total={progress.total} />
          <Button style={styles.left} onPress={dismissReturned}>
            Cancel
          </Button>
        </View>
      )}
      {left > 0 && (
        <Soft>{`One file is looked at at a time: drop the other ${left === 1 ? 'one' : left} afterwards.`}</Soft>
      )}
      {trouble && <TroubleNotice trouble={trouble} />}
      {result && <Found fileName={fileName} {...result} />}
    </>
  );
}

interface FoundProps {
  fileName: string;
  returned: ReturnedFile;
  pictures: { sent: Blob; got: Blob } | null;
}

function Found({ fileName, returned, pictures }: FoundProps) {
  const { verdict, changes } = judgeReturned(returned);
  return (
    <View style={styles.group}>
      <Notice standing={STANDINGS[verdict]} title={VERDICTS[verdict]}>
        <View style={styles.group}>
          {changes.map(({ kind, words }) => (
            <Body key={kind}>{words}</Body>
          ))}
          {verdict === 'other' && (
            <Body>Its pictures are not those of the export. Choose the file that came back.</Body>
          )}
        </View>
      </Notice>
      <Facts fileName={fileName} returned={returned} />
      {pictures && verdict === 'changed' && (
        <>
          <Heading>{`The least alike frame, ${returned.ssim?.frame ?? 0}`}</Heading>
          <SideBySide
            label="The least alike frame"
            left={{ label: 'As it left', picture: pictures.sent }}
            right={{ label: 'As it came back', picture: pictures.got }}
            size={returned.sent}
          />
        </>
      )}
    </View>
  );
}

function Facts({ fileName, returned }: Pick<FoundProps, 'fileName' | 'returned'>) {
  return (
    <View role="table" aria-label="What left, and what came back" style={styles.table}>
      <View role="row" style={styles.row}>
        <View role="columnheader" aria-label="Fact" style={styles.what} />
        <Soft role="columnheader" style={styles.cell}>
          What left
        </Soft>
        <Soft role="columnheader" style={styles.cell} numberOfLines={1}>
          {fileName}
        </Soft>
      </View>
      {factRows(returned).map(({ what, sent, got }) => (
        <View key={what} role="row" style={[styles.row, sent !== got && styles.differs]}>
          <Soft role="rowheader" style={styles.what}>
            {what}
          </Soft>
          <Figures role="cell" style={styles.cell}>
            {sent}
          </Figures>
          <Figures role="cell" style={styles.cell}>
            {got}
          </Figures>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  left: { alignSelf: 'flex-start' },
  drop: {
    gap: space.s,
    padding: space.l,
    alignItems: 'center',
    borderWidth: 2,
    borderStyle: 'dashed',
    borderColor: colours.edge,
    borderRadius: 6,
  },
  over: { borderColor: colours.woad, backgroundColor: colours.woadWash },
  table: { ...card },
  row: {
    flexDirection: 'row',
    gap: space.s,
    padding: space.s,
    borderBottomWidth: 1,
    borderColor: colours.hairline,
  },
  differs: { backgroundColor: colours.woadWash },
  what: { width: 64 },
  cell: { flex: 1, fontSize: 13 },
});
