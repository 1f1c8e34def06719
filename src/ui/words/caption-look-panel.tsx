import { StyleSheet, View } from 'react-native';
import { isBurnt } from '@core/words/canvas-text';
import { CAPTION_WAYS, type CaptionWay } from '@core/words/captions';
import { SEATS, type Seat } from '@core/words/text-art';
import { PLAIN_OUTLINE, PLAIN_PLATE, type TextStyle } from '@core/words/text-style';
import { useCanvasLabel } from '../job/use-target';
import { CheckBox } from '../parts/check-box';
import { Choice } from '../parts/choice';
import { Swatches } from '../parts/swatches';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { ContrastRow } from './contrast-row';
import { LookPanel } from './look-panel';
import type { CaptionTools } from './use-captions';
import type { WordsTools } from './use-words';

const WAY_LABELS: Record<CaptionWay, string> = {
  burnt: 'Burnt in',
  beside: 'As files',
  both: 'Both',
  none: 'Not at all',
};
const WAYS = CAPTION_WAYS.map((value) => ({ value, label: WAY_LABELS[value] }));
const SEAT_LABELS: Record<Seat, string> = { top: 'Top', middle: 'Middle', bottom: 'Bottom' };
const SEAT_OPTIONS = SEATS.map((value) => ({ value, label: SEAT_LABELS[value] }));

type Look = 'plain' | 'plate' | 'outline';
const LOOKS = [
  { value: 'plain', label: 'Plain' },
  { value: 'plate', label: 'Plate' },
  { value: 'outline', label: 'Outline' },
] as const;
const toLook = ({ plate, outline }: TextStyle): Look => (plate ? 'plate' : outline ? 'outline' : 'plain');
const SPOKEN = '#E3B23C';

/** How captions go out, and how they look where they are burnt in. */
export function CaptionLookPanel({ tools, captions }: { tools: WordsTools; captions: CaptionTools }) {
  const labelOf = useCanvasLabel();
  const { cues, style, spoken, seat } = captions.captions;
  const setStyle = (change: Partial<TextStyle>, joins?: string) =>
    captions.setLook('look', { style: { ...style, ...change } }, joins);
  return (
    <View style={styles.panel}>
      <Soft>{`On ${labelOf(tools.canvas)}`}</Soft>
      <Choice label="How captions go out" value={captions.way} options={WAYS} onChange={captions.setWay} />
      <Choice
        label="Look"
        value={toLook(style)}
        options={LOOKS}
        onChange={(look) =>
          setStyle({
            plate: look === 'plate' ? PLAIN_PLATE : null,
            outline: look === 'outline' ? PLAIN_OUTLINE : null,
          })
        }
      />
      <Choice
        label="Where captions lie"
        value={seat}
        options={SEAT_OPTIONS}
        onChange={(next) => captions.setLook('look', { seat: next })}
      />
      <CheckBox
        label="Mark each word as it is spoken"
        on={spoken !== null}
        onChange={(on) => captions.setLook('look', { spoken: on ? SPOKEN : null })}
      />
      {spoken !== null && (
        <Swatches
          label="Spoken word"
          value={spoken}
          onTake={(colour) => captions.setLook('look', { spoken: colour })}
        />
      )}
      {isBurnt(captions.way) && (
        <ContrastRow
          style={style}
          isOwn={(text) => cues.some((cue) => cue.text === text)}
          onStyle={setStyle}
        />
      )}
      <LookPanel style={style} size={style.size} onStyle={setStyle} />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: space.s } });
