import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useMemo, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { planOfJob } from '@core/check/check';
import { isCurrent } from '@core/check/post-check';
import { type Job, onCanvas, onClip } from '@core/job/job';
import type { ExportRecord } from '@core/job/records';
import { rateValue } from '@core/time/frame-rate';
import { formatTimecode } from '@core/time/timecode';
import { type Trouble, toTrouble } from '@core/trouble/trouble';
import { loadExportedFile } from '@state/export';
import { planStill } from '@state/picture';
import { useSheets } from '@state/job';
import { useJob } from '../job/job-context';
import { Notice, TroubleNotice } from '../parts/notice';
import { SideBySide } from '../parts/side-by-side';
import { Tool } from '../parts/tool';
import { useKeys } from '../parts/use-keys';
import { Soft, Strong } from '../parts/words';
import { colours, space } from '../theme/tokens';

/** Pictures of one frame: of the finished file, and of the plan. */
interface Pair {
  frame: number;
  made: Blob;
  planned: Blob;
}

/** A finished file, playing as large as the page, and any of its frames beside the plan's own. */
export function MadeScreen() {
  const job = useJob();
  const router = useRouter();
  const { file: id } = useLocalSearchParams<{ file?: string }>();
  const record = job.exports.find((known) => known.id === id);
  const leave = () => router.replace(`/job/${job.id}/export`);
  useKeys(useMemo(() => ({ Escape: () => router.replace(`/job/${job.id}/export`) }), [router, job.id]));
  return (
    <View style={styles.page}>
      <View role="banner" style={styles.row}>
        <Tool icon="arrow-left" label="Back" words="" hotkey="Esc" onPress={leave} />
        <Strong role="heading" aria-level={1} numberOfLines={1} style={styles.name}>
          {record?.fileName ?? 'No such file'}
        </Strong>
      </View>
      {record ? <Made job={job} record={record} /> : <Soft>It was deleted, or never made here.</Soft>}
    </View>
  );
}

/** The address of an export's bytes; null while they are looked up, and `gone` where they are not here any more. */
function useMadeFile(record: ExportRecord): string | 'gone' | null {
  const [address, setAddress] = useState<string | 'gone' | null>(null);
  useEffect(() => {
    let made: string | null = null;
    let left = false;
    void loadExportedFile(record).then((file) => {
      if (left) return;
      made = file && URL.createObjectURL(file);
      setAddress(made ?? 'gone');
    });
    return () => {
      left = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [record]);
  return address;
}

function Made({ job, record }: { job: Job; record: ExportRecord }) {
  const video = useRef<HTMLVideoElement>(null);
  const address = useMadeFile(record);
  const [pair, setPair] = useState<Pair | null>(null);
  const [busy, setBusy] = useState(false);
  const [unplayed, setUnplayed] = useState(false);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const sheets = useSheets((state) => state.sheets);
  const clip = job.edit.clips.find(({ id }) => id === record.clip);
  const canvas = clip?.canvases.find(({ id }) => id === record.canvas);
  if (address === 'gone')
    return (
      <Notice standing="warn" title="The file is gone">
        The browser deleted this file to make room. Export it again.
      </Notice>
    );
  if (address === null) return null;
  const compare = async () => {
    const player = video.current;
    if (!player || !canvas) return;
    player.pause();
    setBusy(true);
    setTrouble(null);
    try {
      const plan = planOfJob(onCanvas(onClip(job, record.clip), record.canvas), sheets);
      const frame = Math.min(plan.frames - 1, Math.floor(player.currentTime * rateValue(canvas.rate) + 1e-3));
      const made = await captureFrame(player);
      setPair({ frame, made, planned: await planStill(plan, frame) });
    } catch (error) {
      setTrouble(toTrouble(error, 'export-failed', {}));
    }
    setBusy(false);
  };
  return (
    <View role="main" style={styles.main}>
      <View style={pair ? styles.small : styles.large}>
        <video
          ref={video}
          src={address}
          controls
          playsInline
          aria-label={record.fileName}
          onError={() => setUnplayed(true)}
          style={FILLS}
        />
      </View>
      {unplayed && (
        <Notice standing="warn" title="This browser cannot play the file">
          It was read back after it was made, and is whole. Download it, and open it in another player.
        </Notice>
      )}
      {canvas && !unplayed && (
        <Button
          mode="outlined"
          icon="compare"
          style={styles.left}
          disabled={busy}
          onPress={() => void compare()}
        >
          Put this frame beside the plan’s
        </Button>
      )}
      {trouble && <TroubleNotice trouble={trouble} />}
      {pair && canvas && (
        <>
          <Soft>
            {`Frame ${formatTimecode(pair.frame, canvas.rate)}, pixel for pixel.${isCurrent(job, record) ? '' : ' The clip was changed since this file was made: the plan shown is the current one.'}`}
          </Soft>
          <SideBySide
            label="This frame"
            left={{ label: 'As planned', picture: pair.planned }}
            right={{ label: 'As made', picture: pair.made }}
            size={record}
          />
        </>
      )}
    </View>
  );
}

const FILLS = { width: '100%', height: '100%', objectFit: 'contain', display: 'block' } as const;

/** Captures the picture of a player, in the picture's own size. */
async function captureFrame(player: HTMLVideoElement): Promise<Blob> {
  const surface = new OffscreenCanvas(player.videoWidth, player.videoHeight);
  const ink = surface.getContext('2d', { alpha: false });
  if (!ink) throw new Error('this browser gives no 2D canvas');
  ink.drawImage(player, 0, 0);
  return surface.convertToBlob({ type: 'image/png' });
}

const styles = StyleSheet.create({
  page: { flex: 1, backgroundColor: colours.paper, padding: space.s, gap: space.s },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.s },
  name: { flex: 1 },
  main: { flex: 1, gap: space.s },
  large: { flex: 1, minHeight: 200, backgroundColor: colours.ink },
  small: { height: 240, backgroundColor: colours.ink },
  left: { alignSelf: 'flex-start' },
});
