import { StyleSheet, View } from 'react-native';
import { findKeyframe, MAX_TILT } from '@core/framing/framing';
import { tiltFraming, turnFraming } from '@core/framing/moves';
import { computeMinZoom } from '@core/framing/window';
import { useFramingUi } from '@state/framing';
import { NumberField } from '../parts/number-field';
import { Tool } from '../parts/tool';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import type { FramingTools } from './use-framing';

/** Step of the tilt's buttons, in degrees. */
const STEP = 0.5;

/** Quarter turns, tilt, and making a drawn line level. */
export function TurnPanel({ tools }: { tools: FramingTools }) {
  const levelling = useFramingUi((state) => state.levelling);
  const { framing, scope, frame, aspects } = tools;
  const { tilt } = findKeyframe(framing.keyframes, frame);
  const setTilt = (to: number, joins?: string) =>
    tools.keep('tilt', tiltFraming(framing, scope, frame, to), joins);
  const least = computeMinZoom(aspects, framing.turn, tilt);
  return (
    <>
      <View style={styles.row}>
        <NumberField
          label="Tilt"
          unit={`−${MAX_TILT} to ${MAX_TILT}°`}
          value={String(Number(tilt.toFixed(2)))}
          least={-MAX_TILT}
          most={MAX_TILT}
          onTake={(wanted) => setTilt(wanted)}
        />
        <Tool
          icon="rotate-left"
          label="Tilt to the left"
          words=""
          onPress={() => setTilt(tilt - STEP, 'tilt')}
        />
        <Tool
          icon="rotate-right"
          label="Tilt to the right"
          words=""
          onPress={() => setTilt(tilt + STEP, 'tilt')}
        />
        <Tool
          icon="vector-line"
          label="Level: draw along the horizon"
          words="Level"
          pressed={levelling}
          onPress={() => useFramingUi.setState({ levelling: !levelling })}
        />
        <Tool
          icon="rotate-right-variant"
          label="Turn by 90°"
          words="Turn"
          onPress={() => tools.keep('turn', turnFraming(framing))}
        />
      </View>
      <Soft aria-label="Turn">
        {levelling
          ? 'Draw a line along what should be level.'
          : [
              framing.turn === 0 ? 'Not turned' : `Turned ${framing.turn}°`,
              tilt === 0 ? 'not tilted.' : `its corners need a zoom of ${least.toFixed(2)}.`,
            ].join(', ')}
      </Soft>
    </>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', gap: space.xs, alignItems: 'flex-end' } });
