import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { bitsLabel, bytesLabel } from '@core/figures/figures';
import { activeCanvas } from '@core/job/clip';
import { fileBytes } from '@core/render/encode-settings';
import { adviseBitrate, adviceSentence } from '@core/trial/advice';
import { toJobEncodeSettings, planOfJob, computeBitrate } from '@core/check/check';
import { type RateTrial, trialKey, trialOrder, type TrialPoint } from '@core/trial/rate-trial';
import { troubleWords } from '@core/trouble/trouble';
import { trialName, useRateTrials, startRateTrial, stopRateTrial, worstPictures } from '@state/export';
import { useClip, useJob, useCheckContext } from '../job/job-context';
import { useTarget } from '../job/use-target';
import { Notice } from '../parts/notice';
import { OptionList } from '../parts/option-list';
import { SideBySide } from '../parts/side-by-side';
import { StripBar } from '../parts/strip-bar';
import { Body, Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { TrialChart } from './trial-chart';
import { useEncoding } from './use-encoding';

/**
 * Finds the trial of the canvas at hand as it is now, and the name under which it is kept: a copy of a job
 * has what was found of the first. Else an earlier trial, which is not current.
 */
export function useTrial(): { name: string; trial: RateTrial | null; current: boolean } {
  const job = useJob();
  const { sheets } = useCheckContext(job.masters);
  const found = useRateTrials((state) => state.found);
  const key = trialKey(job, sheets);
  const own = trialName(job);
  const [same] = Object.entries(found).find(([, trial]) => trial.key === key) ?? [];
  const name = same ?? own;
  return { name, trial: found[name] ?? null, current: same !== undefined };
}

/** Measures what a viewer gets at several bit rates, once the outlet has compressed the clip again. */
export function TrialFields() {
  const job = useJob();
  const { label } = useTarget();
  const known = useCheckContext(job.masters);
  const name = trialName(job);
  const run = useRateTrials((state) => state.running[name]);
  const trouble = useRateTrials((state) => state.troubles[name]);
  const { name: foundAs, trial, current } = useTrial();
  const order = trialOrder(job, known);
  const { encoding } = useEncoding();
  if (run)
    return (
      <View style={styles.group}>
        <Soft>{`Trying bit rates: step ${run.done} of ${run.total}`}</Soft>
        <StripBar label="Trying bit rates" done={run.done} total={run.total} />
        <Button style={styles.left} onPress={() => stopRateTrial(name)}>
          Stop
        </Button>
      </View>
    );
  return (
    <View style={styles.group}>
      {trouble && (
        <Notice standing="warn" title="The bit rates could not be tried">
          {Object.values(troubleWords(trouble)).join(' ')}
        </Notice>
      )}
      {trial && current && <Found name={foundAs} trial={trial} />}
      {trial && !current && (
        <Soft>The clip, its settings or the rule sheet changed since bit rates were tried.</Soft>
      )}
      {order ? (
        <>
          {!(trial && current) && (
            <Soft>
              {`The hardest two seconds, the easiest and typical ones are made at ${order.rates.length} bit rates and compressed again as ${label} does (${order.rung.width}×${order.rung.height}, ${bitsLabel(order.rung.bits)}). Then what a viewer gets is compared with the picture that you made.`}
            </Soft>
          )}
          {encoding.maker === 'server' && (
            <Soft>The master goes up to the server for it, as for an export.</Soft>
          )}
          <Button
            mode="outlined"
            icon="chart-line"
            style={styles.left}
            onPress={() => void startRateTrial(job)}
          >
            {trial && current ? 'Try again' : 'Try bit rates'}
          </Button>
        </>
      ) : (
        <Soft>{findReason(known, job, label)}</Soft>
      )}
    </View>
  );
}

/** Why nothing can be tried. */
function findReason(
  known: ReturnType<typeof useCheckContext>,
  job: ReturnType<typeof useJob>,
  label: string,
): string {
  const { picture } = toJobEncodeSettings(job, known);
  if (!picture) return 'A file of sound alone has no picture to measure.';
  if (picture.kind === 'quality') return 'At a constant quality the bit rate comes out of the picture.';
  if (job.masters.some(({ fingerprint }) => known.passOf(fingerprint) === null))
    return 'Bit rates can be tried once the master was analysed.';
  return `The rule sheet does not say what ${label} makes of a clip, so there is nothing to measure against.`;
}

function Found({ name, trial }: { name: string; trial: RateTrial }) {
  const { points, compressor } = trial;
  const { knee, kept, most } = adviseBitrate(trial);
  const advised = points.reduce((near, point) =>
    Math.abs(Math.log(point.came / knee)) < Math.abs(Math.log(near.came / knee)) ? point : near,
  );
  const [picked, setPicked] = useState(String(advised.bits));
  const job = useJob();
  const choice = computeBitrate(job, useCheckContext(job.masters));
  const bytesAt = useBytes();
  const { change } = useEncoding();
  const place = Math.max(
    0,
    points.findIndex(({ bits }) => String(bits) === picked),
  );
  const point = points[place] as TrialPoint;
  const school = ({ bits }: TrialPoint) =>
    [bits === kept.bits && 'what the outlet keeps', bits === most.bits && 'as much as it takes']
      .filter(Boolean)
      .join(', ');
  return (
    <>
      <Body>{adviceSentence(trial)}</Body>
      {choice.reason === 'master' && knee > choice.bits && (
        <Soft>{`The calculated bit rate stays at ${bitsLabel(choice.bits)}, the master’s own. Set the advised one yourself if the clip is to survive the outlet’s compression that much better.`}</Soft>
      )}
      <TrialChart trial={trial} />
      <Soft>
        {`How close the viewer’s picture is to yours (SSIM), by the bit rate of the upload in Mb/s. The vertical line is the advised bit rate. ${compressor === 'ffmpeg' ? 'Compressed again by ffmpeg.' : 'Compressed again by this browser, which stands in for the outlet.'}`}
      </Soft>
      <OptionList
        label="Bit rates tried"
        value={picked}
        options={points.map((one) => ({
          value: String(one.bits),
          label: [bitsLabel(one.bits), bytesLabel(bytesAt(one.bits)), school(one)].filter(Boolean).join(', '),
          about: scoreWords(one),
        }))}
        onChange={setPicked}
      />
      <Worst name={name} rate={place} point={point} />
      <Button
        style={styles.left}
        onPress={() => change({ rate: { kind: 'variable', bits: point.bits, most: null } })}
      >
        {`Set the bit rate to ${bitsLabel(point.bits)}`}
      </Button>
    </>
  );
}

function scoreWords({ ssim, psnr, moving, banding }: TrialPoint): string {
  return [
    `SSIM ${ssim.toFixed(3)}`,
    `${psnr.toFixed(1)} dB`,
    moving === null ? '' : `moving detail ${moving.toFixed(3)}`,
    `bands ${banding.toFixed(1)}`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** Computes the size of the whole file at a video bitrate. */
function useBytes(): (bits: number) => number {
  const job = useJob();
  const { sheets } = useCheckContext(job.masters);
  const plan = planOfJob(job, sheets);
  const making = toJobEncodeSettings(job, { sheets });
  return (bits) => fileBytes(plan, making, bits);
}

const ROLES = {
  hardest: 'hardest two seconds',
  typical: 'typical two seconds',
  easiest: 'easiest two seconds',
};

function Worst({ name, rate, point }: { name: string; rate: number; point: TrialPoint }) {
  const canvas = activeCanvas(useClip());
  const [pictures, setPictures] = useState<{ planned: File; viewed: File } | null>(null);
  useEffect(() => {
    let left = false;
    void worstPictures(name, rate).then((found) => {
      if (!left) setPictures(found);
    });
    return () => {
      left = true;
    };
  }, [name, rate]);
  if (!pictures) return null;
  return (
    <>
      <Soft>
        {`Worst frame at ${bitsLabel(point.bits)}: SSIM ${point.worst.ssim.toFixed(3)}, in the ${ROLES[point.worst.role]}. Shown pixel for pixel; drag the picture or the divider.`}
      </Soft>
      <SideBySide
        label="Worst frame"
        left={{ label: 'As you made it', picture: pictures.planned }}
        right={{ label: 'As a viewer gets it', picture: pictures.viewed }}
        size={canvas}
      />
    </>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.m, alignSelf: 'stretch' },
  left: { alignSelf: 'flex-start' },
});
