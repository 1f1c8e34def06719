import { StyleSheet, View } from 'react-native';
import { type Ease, EASES, easeName, type EaseName, easeSchema } from '@core/framing/easing';
import { findKeyframeBefore } from '@core/framing/framing';
import {
  addKeyframe,
  copyKeyframe,
  easeKeyframe,
  moveKeyframe,
  removeKeyframe,
  removeMotion,
} from '@core/framing/keyframes';
import { useFramingUi } from '@state/framing';
import { player } from '@state/player';
import { Choice } from '../parts/choice';
import { EntryField } from '../parts/entry-field';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { CurveEditor } from './curve-editor';
import type { FramingTools } from './use-framing';

const EASE_OPTIONS: readonly { value: EaseName | 'own'; label: string }[] = [
  { value: 'linear', label: 'Even' },
  { value: 'ease-in', label: 'Soft start' },
  { value: 'ease-out', label: 'Soft end' },
  { value: 'ease-in-out', label: 'Soft ends' },
];

/** The control points of a straight line. */
const STRAIGHT = [0, 0, 1, 1];

/** Keyframes of the shot: made, moved, copied, removed and eased. */
export function MotionPanel({ tools }: { tools: FramingTools }) {
  const copied = useFramingUi((state) => state.copied);
  const { framing, frame, shot } = tools;
  const { keyframes } = framing;
  const here = keyframes.find((key) => key.frame === frame);
  const moves = keyframes.length > 1;
  const before = keyframes.findLast((key) => key.frame < frame);
  const after = keyframes.find((key) => key.frame > frame);
  const part = keyframes[findKeyframeBefore(keyframes, frame)];
  const takeCurve = (ease: Ease) => part && tools.keep('ease', easeKeyframe(framing, part.frame, ease));
  const shift = (by: number) => {
    const next = moveKeyframe(framing, frame, frame + by, shot);
    tools.keep('time', next, `time-${shot.id}`);
    const shifted = next.keyframes[keyframes.findIndex((key) => key.frame === frame)];
    if (shifted) player.showFrame(shifted.frame);
  };
  return (
    <>
      <Soft aria-label="Motion">
        {moves
          ? `${keyframes.length} keyframes${here ? `, one here` : ''}. ${part && after ? 'The curve shapes the way to the next one.' : ''}`
          : 'The window stays for the whole shot. Change it “from this frame on”, or set a keyframe.'}
      </Soft>
      <ToolRow>
        <Tool
          icon={here && moves ? 'minus-circle-outline' : 'plus-circle-outline'}
          label={here && moves ? 'Remove the keyframe' : 'Set a keyframe'}
          words={here && moves ? 'Remove' : 'Set'}
          onPress={() =>
            here && moves
              ? tools.keep('unkeyframe', removeKeyframe(framing, frame))
              : tools.keep('keyframe', addKeyframe(framing, frame))
          }
        />
        <Tool
          icon="page-previous-outline"
          label="Go to the keyframe before"
          words="Before"
          disabled={!before}
          onPress={() => before && player.showFrame(before.frame)}
        />
        <Tool
          icon="page-next-outline"
          label="Go to the next keyframe"
          words="Next"
          disabled={!after}
          onPress={() => after && player.showFrame(after.frame)}
        />
        <Tool
          icon="arrow-left-thin"
          label="Move the keyframe one frame earlier"
          words="Earlier"
          disabled={!here || !moves}
          onPress={() => shift(-1)}
        />
        <Tool
          icon="arrow-right-thin"
          label="Move the keyframe one frame later"
          words="Later"
          disabled={!here || !moves}
          onPress={() => shift(1)}
        />
        <Tool
          icon="content-copy"
          label="Copy the keyframe"
          words="Copy"
          onPress={() => useFramingUi.setState({ copied: frame })}
        />
        <Tool
          icon="content-paste"
          label="Paste the copied keyframe here"
          words="Paste"
          disabled={copied === null || copied === frame}
          onPress={() => copied !== null && tools.keep('keyframe', copyKeyframe(framing, copied, frame))}
        />
        <Tool
          icon="pin-outline"
          label="Keep this framing for the whole shot"
          words="Keep"
          disabled={!moves}
          onPress={() => tools.keep('still', removeMotion(framing, frame))}
        />
      </ToolRow>
      {moves && part && after && (
        <>
          <Choice
            label="Ease to the next keyframe"
            value={easeName(part.ease) ?? 'own'}
            options={EASE_OPTIONS}
            onChange={(name) =>
              name !== 'own' && tools.keep('ease', easeKeyframe(framing, part.frame, EASES[name]))
            }
          />
          <View style={styles.curve}>
            <CurveEditor ease={part.ease} onChange={takeCurve} />
            <EntryField
              label="Curve"
              unit="x1 y1 x2 y2, each 0 to 1"
              value={(part.ease ?? STRAIGHT).join(' ')}
              onSubmit={(text) => {
                const ease = easeSchema.safeParse(text.split(/[\s,;]+/).map(Number));
                if (!ease.success) {
                  return `“${text}” is not a curve. Type four numbers from 0 to 1.`;
                }
                takeCurve(ease.data);
                return null;
              }}
            />
          </View>
        </>
      )}
    </>
  );
}

const styles = StyleSheet.create({
  curve: { flexDirection: 'row', alignItems: 'center', gap: space.m },
});
