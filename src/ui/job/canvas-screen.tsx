import { Pressable, StyleSheet, View } from 'react-native';
import Svg, { Rect } from 'react-native-svg';
import { bytesLabel } from '@core/check/words';
import { activeCanvas } from '@core/job/clip';
import { type OutletPlacement, PLACEMENTS, RULE_SHEETS } from '@core/outlets/outlets';
import { ratioLabel } from '@core/picture/size';
import { rateLabel } from '@core/time/frame-rate';
import { dispatch } from '@state/jobs';
import { Body, Heading, Soft, Strong } from '../parts/words';
import { colours, space, card } from '../theme/tokens';
import { useClip, useJob } from './job-context';
import { JobPage } from './job-page';
import { RateChoice } from './rate-choice';
import { markOf } from './use-target';

/** Side of the square that a canvas is drawn in, in pixels. */
const DRAWING = 56;

/** Chooses the canvas from the placements of the outlets' rule sheets. */
export function CanvasScreen() {
  const job = useJob();
  const canvas = activeCanvas(useClip());
  const chosen = canvas.placement;
  return (
    <JobPage title="Canvas" subtitle={`At ${rateLabel(canvas.rate)} fps`}>
      <RateChoice />
      <Body>Pick where the clip goes. Changing it later loses nothing: cut and framing stay.</Body>
      <View role="radiogroup" aria-label="Canvas" style={styles.groups}>
        {RULE_SHEETS.map((sheet) => (
          <View key={sheet.outlet} style={styles.group}>
            <Heading>{sheet.name}</Heading>
            <Soft>
              {sheet.about}. Rules as of {sheet.date}.
            </Soft>
            {PLACEMENTS.filter((one) => one.sheet === sheet).map((one) => (
              <PlacementRow
                key={one.key}
                target={one}
                on={one.key === chosen}
                onPress={() => dispatch(job.id, { type: 'choose-placement', placement: one.key })}
              />
            ))}
          </View>
        ))}
      </View>
    </JobPage>
  );
}

function limitsOf({ placement }: OutletPlacement): string {
  const { maxSeconds, bestSeconds, requiredTag, bars } = placement;
  return [
    `at most ${maxSeconds} s${bestSeconds ? `, best ${bestSeconds.from}–${bestSeconds.to} s` : ''}`,
    `${rateLabel(placement.maxRate)} fps`,
    bytesLabel(placement.maxBytes),
    bars === 'refused' ? 'no bars' : '',
    requiredTag ? `tag #${requiredTag}` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

function PlacementRow({
  target,
  on,
  onPress,
}: {
  target: OutletPlacement;
  on: boolean;
  onPress: () => void;
}) {
  const { placement, label } = target;
  const { dye, dashes } = markOf(target.key);
  const scale = (DRAWING - 6) / Math.max(placement.width, placement.height);
  const [width, height] = [placement.width * scale, placement.height * scale];
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
          stroke={dye}
          strokeWidth={3}
          strokeDasharray={dashes}
        />
      </Svg>
      <View style={styles.words}>
        <Strong>
          {placement.name}, {placement.width}×{placement.height}, {ratioLabel(placement)}
        </Strong>
        <Soft>{limitsOf(target)}</Soft>
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
  words: { flex: 1 },
  chosen: { color: colours.woad },
});
