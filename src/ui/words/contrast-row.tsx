import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { shortHash } from '@core/figures/short-hash';
import type { RenderPlan } from '@core/render/plan';
import { hasEnoughContrast } from '@core/words/contrast';
import { chooseReadableColour } from '@core/words/banded-clip';
import { toMasterFrame } from '@core/words/spans';
import { PLAIN_OUTLINE, PLAIN_PLATE, type TextStyle } from '@core/words/text-style';
import { useContrast } from '@state/words';
import { player } from '@state/player';
import { Mark } from '../parts/mark';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { useCanvasPlan, useTimeline } from './use-words';

interface Props {
  style: TextStyle;
  /** Selects the words on the picture that are meant. */
  isOwn: (text: string) => boolean;
  onStyle: (change: Partial<TextStyle>) => void;
  /** Makes letters as large as their box lets them be; captions have no such choice. */
  onFit?: () => void;
}

/** How the words stand out from the picture at the worst frame, whether they have room, and what mends it by one tap. */
export function ContrastRow({ style, isOwn, onStyle, onFit }: Props) {
  const plan = useCanvasPlan();
  const timeline = useTimeline();
  const found = useContrast(plan, isOwn, toKey(plan, isOwn));
  if (found.state === 'failed') return <Soft>The contrast could not be measured.</Soft>;
  if (found.state === 'looking') return <Soft>Contrast is being measured on the picture…</Soft>;
  const { worst, over } = found.looked;
  if (!worst) return <Soft>No words are seen on this canvas.</Soft>;
  const least = hasEnoughContrast(worst.size, style.weight, plan.width);
  const enough = worst.ratio >= least;
  // What is behind the letters is made as unlike them as can be.
  const colour = chooseReadableColour(style.colour);
  const show = (frame: number) => {
    const place = toMasterFrame(frame, timeline);
    if (place) player.showFrame(place.frame, place.master);
  };
  return (
    <>
      <View style={styles.row}>
        <Mark standing={enough ? 'pass' : 'warn'} size={20} />
        <Soft style={styles.words}>
          {`Contrast ${worst.ratio.toFixed(1)} to 1 at its worst; ${least} to 1 is wanted.`}
        </Soft>
        <Button compact onPress={() => show(worst.frame)}>
          Show
        </Button>
        {!enough && (
          <>
            <Mend onPress={() => onStyle({ plate: { ...PLAIN_PLATE, colour, cover: 1 } })}>Add a plate</Mend>
            <Mend onPress={() => onStyle({ outline: { ...PLAIN_OUTLINE, width: 0.1, colour } })}>
              Add an outline
            </Mend>
          </>
        )}
      </View>
      {over !== null && (
        <View style={styles.row}>
          <Mark standing="warn" size={20} />
          <Soft style={styles.words}>Some words are larger than their box, and reach past it.</Soft>
          <Button compact onPress={() => show(over)}>
            Show
          </Button>
          {onFit && <Mend onPress={onFit}>Fit them to it</Mend>}
        </View>
      )}
    </>
  );
}

/** Button that applies a fix with one tap. */
const Mend = ({ onPress, children }: { onPress: () => void; children: string }) => (
  <Button compact mode="outlined" onPress={onPress}>
    {children}
  </Button>
);

/** Makes the key of everything that a measurement depends on: the words, and the pictures behind them. */
function toKey({ overlays, segments, width, height }: RenderPlan, isOwn: Props['isOwn']): string {
  const own = overlays.filter(({ art }) => isOwn(art.text));
  const behind = segments.map(({ start, shot, panes }) => [start, shot, panes]);
  return shortHash([own, behind, width, height]);
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: space.s, flexWrap: 'wrap' },
  words: { flexShrink: 1 },
});
