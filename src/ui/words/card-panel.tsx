import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { chooseReadableColour } from '@core/words/banded-clip';
import { MAX_CARD } from '@core/words/clip-text';
import { PLAIN_STYLE } from '@core/words/text-style';
import { dispatch } from '@state/job';
import { useJob } from '../job/job-context';
import { NumberField } from '../parts/number-field';
import { Swatches } from '../parts/swatches';
import { Soft, Strong } from '../parts/words';
import { card as sheet, space } from '../theme/tokens';
import type { WordsTools } from './use-words';

const PLAIN_CARD = { seconds: 2, colour: '#1F2B33' };

/** The plain card after the picture, and how long it stays. */
export function CardPanel({ tools }: { tools: WordsTools }) {
  const { id } = useJob();
  const { card } = tools.text;
  const setCard = (next: typeof card, joins?: string) =>
    dispatch(id, { type: 'set-card', card: next }, joins);
  if (!card) {
    return (
      <Button mode="outlined" icon="card-text-outline" onPress={() => setCard(PLAIN_CARD)}>
        Add an end card
      </Button>
    );
  }
  const addBlock = () =>
    tools.add({
      on: 'card',
      text: 'See you there',
      box: { x: 0.1, y: 0.35, width: 0.8, height: 0.3 },
      style: { ...PLAIN_STYLE, colour: chooseReadableColour(card.colour), outline: null },
    });
  return (
    <View style={styles.card}>
      <Strong>End card</Strong>
      <Soft>It comes after the picture, without sound, and counts in the length of the clip.</Soft>
      <View style={styles.row}>
        <View style={styles.seconds}>
          <NumberField
            label="Stays"
            unit="s"
            value={String(card.seconds)}
            least={0.2}
            most={MAX_CARD}
            onTake={(seconds) => setCard({ ...card, seconds }, 'card')}
          />
        </View>
        <Button mode="outlined" onPress={addBlock}>
          Words on it
        </Button>
        <Button mode="text" onPress={() => setCard(null)}>
          Remove it
        </Button>
      </View>
      <Swatches label="Card" value={card.colour} onTake={(colour) => setCard({ ...card, colour })} />
    </View>
  );
}

const styles = StyleSheet.create({
  card: { ...sheet, padding: space.m, gap: space.s },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'flex-end', flexWrap: 'wrap' },
  seconds: { width: 110 },
});
