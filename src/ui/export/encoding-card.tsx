import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { toJobEncodeSettings, planOfJob, computeBitrate } from '@core/check/check';
import type { Finding } from '@core/check/finding';
import { bitsLabel, bytesLabel } from '@core/figures/figures';
import { activeCanvas } from '@core/job/clip';
import { bitRateWords, formatRateMode } from '@core/rate/bit-rate-words';
import { hasOpenSize, computeMinBytes, soundLabel } from '@core/render/encode-settings';
import { PLAIN_ENCODING } from '@core/rate/encoding';
import { FORMAT_IDS, type FormatId, FORMATS, isFormatTaken } from '@core/rate/format';
import { toSeconds } from '@core/time/frame-rate';
import { adviseBitrate } from '@core/trial/advice';
import { useAbilities } from '@state/export';
import { useStorageRoom } from '@state/app';
import { useClip, useJob, useCheckContext } from '../job/job-context';
import { useTarget } from '../job/use-target';
import { Fold } from '../parts/fold';
import { OptionList } from '../parts/option-list';
import { Body, Soft } from '../parts/words';
import { card, space } from '../theme/tokens';
import { ExportPresets } from './export-presets';
import { MakerFields } from './maker-fields';
import { NameFields, useNextName } from './name-fields';
import { PictureFields } from './picture-fields';
import { RateFields } from './rate-fields';
import { SharpeningFields } from './sharpening-fields';
import { SoundFields } from './sound-fields';
import { StillFields } from './still-fields';
import { TrialFields, useTrial } from './trial-fields';
import { useEncoding } from './use-encoding';

/** Where the size that is told comes from. */
const SIZE_FROM = {
  tried: 'Measured by encoding pieces of this clip',
  trying: 'From bit rate and length; being measured now',
  reckoned: 'From bit rate and length',
};

/**
 * Copies that an encoder writes: this browser writes the encoded packets and the file; from the server the
 * file is fetched.
 */
const WRITTEN = { browser: 2, server: 1 };

const roomWords = (need: number, free: number): string =>
  need > free
    ? `Takes ${bytesLabel(need)} while it is made, but this browser has only ${bytesLabel(free)} free: delete jobs or exports first.`
    : `Takes ${bytesLabel(need)} of ${bytesLabel(free)} free while it is made.`;

interface Props {
  /** Finding of the check on the size. */
  size: Extract<Finding, { rule: 'file-size' }> | undefined;
  /** True when the size is being measured. */
  trying: boolean;
}

/** How the file of the canvas at hand is made. */
export function EncodingCard({ size, trying }: Props) {
  const job = useJob();
  const clip = useClip();
  const canvas = activeCanvas(clip);
  const { placement, label } = useTarget();
  const known = useCheckContext(job.masters);
  const { encoding, change, put } = useEncoding();
  const { trial, current } = useTrial();
  const abilities = useAbilities(canvas, encoding.maker);
  const making = toJobEncodeSettings(job, known);
  const plan = planOfJob(job, known.sheets);
  const choice = computeBitrate(job, known);
  const room = useStorageRoom(job.exports);
  const sized = size && 'bytes' in size.values ? size.values : null;
  const bytes = sized?.bytes ?? 0;
  const formats = FORMAT_IDS.filter((id) => abilities?.[id] ?? id === making.format);
  const { picture } = making;
  const tried = sized?.tried ?? false;
  const comesOut = picture !== null && hasOpenSize(picture) && !tried;
  const isLossless = picture?.kind === 'lossless';
  return (
    <View style={styles.parts}>
      <View style={styles.estimate} aria-label="Estimated file">
        <Body>
          {comesOut
            ? 'The size comes out of the picture'
            : `${tried ? 'About' : 'Up to'} ${bytesLabel(bytes)}`}
        </Body>
        <Soft style={styles.from}>
          {comesOut
            ? trying
              ? 'Being measured now'
              : 'Known when the file is made'
            : SIZE_FROM[tried ? 'tried' : trying ? 'trying' : 'reckoned']}
        </Soft>
        {room && !comesOut && <Soft>{roomWords(bytes * WRITTEN[encoding.maker], room.free)}</Soft>}
        {picture && !isLossless && encoding.rate.kind === 'worked-out' && (
          <Soft>Calculated: {bitRateWords(choice)}</Soft>
        )}
      </View>
      <Fold title="Made" detail={encoding.maker === 'server' ? 'on the server' : 'in this browser'}>
        <MakerFields />
      </Fold>
      <Fold title="Format" detail={FORMATS[making.format].name}>
        <OptionList<FormatId>
          label="Format"
          value={making.format}
          options={formats.map((id) => ({
            value: id,
            label: FORMATS[id].name,
            about: isFormatTaken(placement, id) ? `${label} takes it` : FORMATS[id].use,
          }))}
          onChange={(format) => change({ format })}
        />
      </Fold>
      {picture && (
        <>
          {!isLossless && (
            <>
              <Fold title="Bit rate" detail={formatRateMode(encoding.rate, choice.bits)}>
                <RateFields
                  rate={encoding.rate}
                  offered={abilities?.[making.format] ?? []}
                  bits={choice.bits}
                  bytes={bytes}
                  tried={tried}
                  minBytes={computeMinBytes(plan, making)}
                  minutes={toSeconds(plan.frames, plan.rate) / 60}
                  onChange={(rate) => change({ rate })}
                />
              </Fold>
              <Fold
                title="What a viewer gets"
                detail={
                  trial && current ? `${bitsLabel(adviseBitrate(trial).knee)} advised` : 'not measured yet'
                }
              >
                <TrialFields />
              </Fold>
            </>
          )}
          <Fold title="Sharpening" detail={encoding.sharpening ? 'on' : 'none'}>
            <SharpeningFields
              sharpening={encoding.sharpening}
              onChange={(sharpening) => change({ sharpening })}
            />
          </Fold>
        </>
      )}
      <Fold title="Sound" detail={soundLabel(making.sound)}>
        <SoundFields
          sound={encoding.sound}
          hasRate={making.sound?.codec !== 'flac'}
          target={placement.audio.loudness}
          onChange={(sound) => change({ sound })}
        />
      </Fold>
      {picture && (
        <Fold title="Key frames, profile and level">
          <PictureFields encoding={encoding} made={picture} onChange={change} />
        </Fold>
      )}
      <Fold title="File names" detail={useNextName()}>
        <NameFields />
      </Fold>
      {picture && (
        <Fold title="Stills" detail="PNG or JPEG">
          <StillFields />
        </Fold>
      )}
      <Fold title="Presets">
        <ExportPresets />
        <View style={styles.actions}>
          {canvas.encoding && <Button onPress={() => put(PLAIN_ENCODING)}>As the rule sheet says</Button>}
          {clip.canvases.length > 1 && (
            <Button
              onPress={() =>
                put(
                  encoding,
                  clip.canvases.map(({ id }) => id),
                )
              }
            >
              {`Make all ${clip.canvases.length} canvases like this`}
            </Button>
          )}
        </View>
      </Fold>
    </View>
  );
}

const styles = StyleSheet.create({
  parts: { gap: space.s },
  estimate: { ...card, padding: space.m, gap: space.xs },
  // Two lines, so that nothing moves from under the finger when the size is known better.
  from: { minHeight: 20 },
  actions: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
