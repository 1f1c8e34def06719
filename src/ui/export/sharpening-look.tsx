import { useEffect, useState } from 'react';
import { activeCanvas } from '@core/job/clip';
import { formatTimecode } from '@core/time/timecode';
import { type Trouble, toTrouble } from '@core/trouble/trouble';
import { planStill, listSharpenedPlans } from '@state/picture';
import { useClip, useJob } from '../job/job-context';
import { TroubleNotice } from '../parts/notice';
import { SideBySide } from '../parts/side-by-side';
import { Soft } from '../parts/words';
import { useOutputFrame } from './use-output-frame';

/** A picture is drawn again when nothing was changed for this long, in milliseconds. */
const CALM = 400;

interface SharpenedFrame {
  plain: Blob;
  sharpened: Blob;
}

/** Preview of the sharpening on the frame that the player stands at, pixel for pixel. */
export function SharpeningLook() {
  const job = useJob();
  const canvas = activeCanvas(useClip());
  const frame = useOutputFrame();
  const [drawn, setDrawn] = useState<SharpenedFrame | null>(null);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const { edit } = job;
  useEffect(() => {
    const stop = new AbortController();
    const draw = async () => {
      const plans = listSharpenedPlans(job);
      const plain = await planStill(plans.plain, frame, 'image/png', stop.signal);
      const sharpened = await planStill(plans.sharpened, frame, 'image/png', stop.signal);
      setDrawn({ plain, sharpened });
      setTrouble(null);
    };
    const timer = setTimeout(() => {
      draw().catch((error: unknown) => {
        if (!stop.signal.aborted) setTrouble(toTrouble(error, 'export-failed', {}));
      });
    }, CALM);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
    // What the clip shows counts, not its records.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [edit, frame]);
  if (trouble) return <TroubleNotice trouble={trouble} />;
  if (!drawn) return <Soft>The frame is being drawn…</Soft>;
  return (
    <>
      <Soft>{`The clip’s frame at ${formatTimecode(frame, canvas.rate)}, where the player stands, pixel for pixel.`}</Soft>
      <SideBySide
        label="Sharpening"
        left={{ label: 'Without', picture: drawn.plain }}
        right={{ label: 'Sharpened', picture: drawn.sharpened }}
        size={canvas}
      />
    </>
  );
}
