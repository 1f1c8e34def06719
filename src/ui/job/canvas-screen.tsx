import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import Svg, { Rect } from 'react-native-svg';
import { Button } from 'react-native-paper';
import { bytesLabel, secondsLabel } from '@core/figures/figures';
import { addCanvas, changeCanvas } from '@core/job/canvases';
import { activeCanvas } from '@core/job/clip';
import { chooseCanvasSize, type OutletPlacement, listPlacements } from '@core/outlets/outlets';
import { sizesLabel, isSizeTaken } from '@core/outlets/taken-sizes';
import { ratioLabel } from '@core/picture/size';
import { rateLabel } from '@core/time/frame-rate';
import { dispatch } from '@state/job';
import { Heading, Soft, Strong } from '../parts/words';
import { type CanvasMark, canvasMark } from '../theme/dyes';
import { colours, space, card } from '../theme/tokens';
import { CanvasList } from './canvas-list';
import { CanvasSize } from './canvas-size';
import { useClip, useJob } from './job-context';
import { JobPage } from './job-page';
import { PresetList } from './preset-list';
import { RateChoice } from './rate-choice';
import { useRuleSheets } from './use-target';

/** Side of the square that a canvas is drawn in, in pixels. */
const DRAWING = 56;

/** The clip's canvases, and the placement, size and rate of the one being worked on. */
export function CanvasScreen() {
  const job = useJob();
  const router = useRouter();
  const clip = useClip();
  const canvas = activeCanvas(clip);
  const sheets = useRuleSheets();
  const [adding, setAdding] = useState(false);
  const take = (target: OutletPlacement) => {
    const { width, height } = chooseCanvasSize(target);
    const size = { width, height };
    if (!adding) return dispatch(job.id, { type: 'choose-placement', placement: target.key, size });
    setAdding(false);
    const added = addCanvas(clip, size, target.key);
    dispatch(job.id, { type: 'set-canvases', act: 'add', ...added });
  };
  /** Makes an extra placement of the canvas, with the words for it; only where its size fits. */
  const toAlso = ({ key, placement }: OutletPlacement) => {
    if (key === canvas.placement || !isSizeTaken(placement.sizes, canvas)) return undefined;
    const others = canvas.also ?? [];
    const on = others.includes(key);
    const also = on ? others.filter((other) => other !== key) : [...others, key];
    const toggle = () =>
      dispatch(job.id, { type: 'set-canvases', act: 'also', ...changeCanvas(clip, canvas.id, { also }) });
    return { on, toggle };
  };
  const takeSize = (width: number, height: number) => {
    setAdding(false);
    const size = { width, height };
    const next = adding
      ? addCanvas(clip, size, null)
      : changeCanvas(clip, canvas.id, { ...size, placement: null });
    dispatch(job.id, { type: 'set-canvases', act: adding ? 'add' : 'size', ...next });
  };
  return (
    <JobPage title="Canvas" subtitle={`At ${rateLabel(canvas.rate)} fps`}>
      <CanvasList />
      <Button
        mode={adding ? 'outlined' : 'contained'}
        icon={adding ? 'close' : 'plus'}
        onPress={() => setAdding(!adding)}
      >
        {adding ? 'Cancel' : 'Add a canvas'}
      </Button>
      <Soft>
        {adding
          ? 'Pick where the new canvas goes, or its size. It uses the framings that you have made.'
          : 'Or change the canvas that is marked. Changing it loses nothing: cut and framing stay.'}
      </Soft>
      <View role="radiogroup" aria-label={adding ? 'New canvas' : 'Placement'} style={styles.groups}>
        {sheets.map((sheet) => (
          <View key={sheet.outlet} style={styles.group}>
            <Heading>{sheet.name}</Heading>
            <Soft>
              {sheet.about}. Rules as of {sheet.date}.
            </Soft>
            {listPlacements([sheet]).map((placement) => (
              <PlacementRow
                key={placement.key}
                target={placement}
                on={!adding && placement.key === canvas.placement}
                mark={canvasMark(canvas.dye)}
                onPress={() => take(placement)}
                also={adding ? undefined : toAlso(placement)}
              />
            ))}
          </View>
        ))}
        <Button icon="ruler-square" style={styles.left} onPress={() => router.push('/rules')}>
          Change the rule sheets
        </Button>
        <CanvasSize onTake={takeSize} />
        <PresetList />
      </View>
      <RateChoice />
    </JobPage>
  );
}

function describeLimits({ placement }: OutletPlacement): string {
  const { length, bars, sizes, video, words, mostBytes } = placement;
  const { least, most, best } = length;
  return [
    sizes.kind === 'one' ? '' : sizesLabel(sizes),
    `${least === null ? '' : `at least ${secondsLabel(least)}, `}at most ${secondsLabel(most)}`,
    best ? `best ${best.from}–${best.to} s` : '',
    `${rateLabel(video.mostRate)} fps`,
    bytesLabel(mostBytes),
    bars === 'refused' ? 'no bars' : '',
    words.tags.required === null ? '' : `tag #${words.tags.required}`,
  ]
    .filter(Boolean)
    .join(', ');
}

interface PlacementProps {
  target: OutletPlacement;
  on: boolean;
  mark: CanvasMark;
  onPress: () => void;
  also: { on: boolean; toggle: () => void } | undefined;
}

function PlacementRow({ also, ...row }: PlacementProps) {
  return (
    <>
      <PlacementChoice {...row} />
      {also && (
        <Button
          compact
          icon={also.on ? 'checkbox-marked' : 'checkbox-blank-outline'}
          style={styles.left}
          onPress={also.toggle}
        >
          {also.on ? `Made for ${row.target.label} too` : `Make it for ${row.target.label} too`}
        </Button>
      )}
    </>
  );
}

function PlacementChoice({ target, on, mark, onPress }: Omit<PlacementProps, 'also'>) {
  const { placement, label } = target;
  const size = chooseCanvasSize(target);
  const scale = (DRAWING - 6) / Math.max(size.width, size.height);
  const [width, height] = [size.width * scale, size.height * scale];
  return (
    <Pressable
      role="radio"
      aria-checked={on}
      aria-label={label}
      onPress={onPress}
      style={[styles.row, on && styles.on]}
    >
      <Svg width={DRAWING} height={DRAWING} aria-hidden>
        <Rect
          x={(DRAWING - width) / 2}
          y={(DRAWING - height) / 2}
          width={width}
          height={height}
          fill={on ? colours.sheet : colours.paper}
          stroke={on ? mark.dye : colours.edge}
          strokeWidth={on ? 3 : 2}
          strokeDasharray={on ? mark.dashes : []}
        />
      </Svg>
      <View style={styles.words}>
        <Strong>
          {placement.name}, {size.width}×{size.height}, {ratioLabel(size)}
        </Strong>
        <Soft>{describeLimits(target)}</Soft>
        {on && <Soft style={styles.chosen}>Chosen</Soft>}
      </View>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  groups: { gap: space.xl },
  group: { gap: space.s },
  row: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.m,
    padding: space.m,
    ...card,
  },
  on: { borderColor: colours.woad, borderWidth: 2, padding: space.m - 1, backgroundColor: colours.woadWash },
  left: { alignSelf: 'flex-start' },
  words: { flex: 1 },
  chosen: { color: colours.woad },
});
