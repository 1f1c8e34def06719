import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { bytesLabel, durationLabel } from '@core/figures/figures';
import type { ExportRecord } from '@core/job/records';
import type { Offer } from '@core/posting/hand-off';
import { loadExportedFile } from '@state/export';
import {
  cancelOffering,
  closeOffer,
  followOffers,
  keepOffer,
  offerFile,
  toOfferId,
  useHandOff,
} from '@state/posting';
import { useJob } from '../job/job-context';
import { JobPage } from '../job/job-page';
import { Notice, TroubleNotice } from '../parts/notice';
import { ScanCode } from '../parts/scan-code';
import { StripBar } from '../parts/strip-bar';
import { useTicking } from '../parts/use-ticking';
import { Body, Heading, Soft, Strong } from '../parts/words';
import { card, space } from '../theme/tokens';

/** Side of the code to scan, in pixels: read from an arm's length. */
const CODE_SIDE = 264;

/** Gets a finished file to a phone unchanged: by a code to scan, or by the device's own share sheet. */
export function HandOffScreen() {
  const job = useJob();
  const router = useRouter();
  const { file: id } = useLocalSearchParams<{ file?: string }>();
  const record = job.exports.find((known) => known.id === id && known.state === 'done');
  useEffect(() => followOffers(), []);
  return (
    <JobPage title="To a phone" subtitle={record?.fileName ?? 'No such file'}>
      {record ? (
        <>
          <Share record={record} />
          <ByCode record={record} />
          <View style={styles.group}>
            <Heading>Back from there</Heading>
            <Button
              mode="outlined"
              icon="file-question-outline"
              style={styles.left}
              onPress={() => router.replace(`/job/${job.id}/returned?file=${record.id}`)}
            >
              Did it come through?
            </Button>
            <Soft>Takes a file that came back, and says whether it is still the one that left.</Soft>
          </View>
        </>
      ) : (
        <Soft>It was deleted, or never made here. Choose a file on the export page.</Soft>
      )}
    </JobPage>
  );
}

/** Where the device has a share sheet that takes files, it gets this one. */
function Share({ record }: { record: ExportRecord }) {
  const [file, setFile] = useState<File | null>(null);
  const [refused, setRefused] = useState(false);
  useEffect(() => {
    let left = false;
    void loadExportedFile(record).then((found) => left || setFile(found));
    return () => {
      left = true;
    };
  }, [record]);
  if (!file || !('canShare' in navigator) || !navigator.canShare({ files: [file] })) return null;
  const share = () => {
    setRefused(false);
    navigator.share({ files: [file], title: file.name }).catch((error: unknown) => {
      // Whoever closes the sheet wants nothing more.
      setRefused(!(error instanceof DOMException && error.name === 'AbortError'));
    });
  };
  return (
    <View style={styles.group}>
      <Heading>On this device</Heading>
      <Button mode="contained" icon="share-variant" style={styles.left} onPress={share}>
        Share the file
      </Button>
      <Soft>
        Goes to the device’s own share sheet. An app that compresses changes it: save it to the files.
      </Soft>
      {refused && (
        <Notice standing="warn" title="The device did not take the file">
          Download it on the export page, and open it from there.
        </Notice>
      )}
    </View>
  );
}

function ByCode({ record }: { record: ExportRecord }) {
  const { lan, isDown, offers, sending, troubles } = useHandOff();
  const offer = offers[toOfferId(record)];
  const going = sending[record.id];
  const trouble = troubles[record.id];
  if (isDown)
    return (
      <Notice standing="warn" title="The server does not answer">
        A code to scan needs it. It is asked again by itself; the file is as it was.
      </Notice>
    );
  if (lan === undefined) return <Soft role="status">Asking the server whether phones reach it…</Soft>;
  if (lan === null)
    return (
      <Notice standing="note" title="Phones do not reach this server">
        It answers to this machine alone. End it and start it with “npm run demo -- --lan”: then a phone in
        the same network can fetch the files that you offer here, and nothing else.
      </Notice>
    );
  return (
    <View style={styles.group}>
      <Heading>To another device</Heading>
      {trouble && <TroubleNotice trouble={trouble} />}
      {offer && <Offered record={record} offer={offer} />}
      {going ? (
        <View style={styles.card}>
          <StripBar label="To the server" done={going.sent} total={going.total} />
          <Button style={styles.left} onPress={() => cancelOffering(record.id)}>
            Cancel
          </Button>
        </View>
      ) : (
        offer?.state !== 'open' && (
          <>
            <Button mode="contained" icon="qrcode" style={styles.left} onPress={() => void offerFile(record)}>
              {offer ? 'Show a new code' : 'Show a code to scan'}
            </Button>
            <Soft>
              {`Whoever scans it in this network can fetch this one file for ten minutes (${bytesLabel(record.bytes ?? 0)}). The file is copied to the server, and deleted there when it has arrived.`}
            </Soft>
          </>
        )
      )}
    </View>
  );
}

const ENDED: Record<
  Exclude<Offer['state'], 'open'>,
  { standing: 'pass' | 'note'; title: string; words: string }
> = {
  arrived: {
    standing: 'pass',
    title: 'It arrived unchanged',
    words: 'The phone read the file that it saved: size and SHA-256 are the same. The address is closed.',
  },
  expired: { standing: 'note', title: 'The code has run out', words: 'Its ten minutes are over.' },
  closed: { standing: 'note', title: 'The code was closed', words: 'Its address opens nothing any more.' },
};

function Offered({ record, offer }: { record: ExportRecord; offer: Offer }) {
  const now = useTicking(offer.state === 'open');
  const { state, address, bytes, fetched, starts, found, until } = offer;
  if (state !== 'open') {
    const { standing, title, words } = ENDED[state];
    return (
      <Notice standing={standing} title={title}>
        {words}
        {state === 'arrived' ? ` SHA-256 ${offer.sha256}.` : ''}
      </Notice>
    );
  }
  return (
    <View style={styles.card}>
      <View style={styles.code}>
        <ScanCode text={address} label={`Code for ${address}`} side={CODE_SIDE} />
      </View>
      <Soft>Or type this address on the phone:</Soft>
      <Strong selectable>{address}</Strong>
      <Soft role="timer">{`Open for ${durationLabel(Math.max(0, (until - now) / 1000))}.`}</Soft>
      {starts === 0 ? (
        <Soft role="status">No phone has begun to fetch it yet.</Soft>
      ) : (
        <StripBar label="Fetched" done={fetched} total={bytes} />
      )}
      {starts > 0 && fetched >= bytes && !found && (
        <Body role="status">All of it was fetched. Check it on the phone: the result is shown here.</Body>
      )}
      {found && !found.same && (
        <Notice standing="stop" title="What the phone has is not the same">
          {`It has ${bytesLabel(found.bytes)} (${found.bytes} bytes); ${bytesLabel(bytes)} (${bytes} bytes) left. Its SHA-256 is ${found.sha256}; ${offer.sha256} left. Save the file again on the phone.`}
        </Notice>
      )}
      <View style={styles.row}>
        <Button mode="outlined" onPress={() => void keepOffer(record)}>
          Ten minutes more
        </Button>
        <Button onPress={() => void closeOffer(record)}>Close the address</Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  card: { gap: space.s, padding: space.m, ...card },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  left: { alignSelf: 'flex-start' },
  code: { alignItems: 'center' },
});
