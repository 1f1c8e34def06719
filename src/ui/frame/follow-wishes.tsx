import { StyleSheet, View } from 'react-native';
import type { Stillness } from '@core/framing/following';
import { Choice } from '../parts/choice';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import type { FollowTools } from './use-follow';

const STILL: readonly { value: Stillness; label: string }[] = [
  { value: 'place', label: 'One place if it can' },
  { value: 'calm', label: 'Calm' },
  { value: 'near', label: 'Near' },
  { value: 'close', label: 'On its heels' },
];
/** Shares of the window's height that a subject fills. */
const TIGHT = [
  { value: 'held', label: 'Keep the zoom', fills: null },
  { value: 'third', label: 'A third of the height', fills: 1 / 3 },
  { value: 'half', label: 'Half of it', fills: 1 / 2 },
  { value: 'most', label: 'Most of it', fills: 0.8 },
] as const;
/** Canvas pixels for each master pixel: past two a picture is soft. */
const SHARP: readonly { value: string; label: string }[] = [
  { value: '1.8', label: '1.8 times' },
  { value: '2.5', label: '2.5 times' },
  { value: '4', label: '4 times' },
];
const SITS = [
  { value: 'lead', label: 'Room in front', seat: null, lead: 0.08 },
  { value: 'natural', label: 'Head room only', seat: null, lead: 0 },
  { value: 'middle', label: 'In the middle', seat: { x: 0.5, y: 0.5 }, lead: 0 },
] as const;

const findValue = <Option extends { value: string }>(
  options: readonly Option[],
  is: (option: Option) => boolean,
): Option['value'] => (options.find(is) ?? (options[0] as Option)).value;

/** How following moves: three choices, each in plain words. */
export function FollowWishes({ follow: { wishes, wish } }: { follow: FollowTools }) {
  const tight = findValue(TIGHT, ({ fills }) => fills === wishes.fills);
  const sits = findValue(
    SITS,
    ({ seat, lead }) => (seat === null) === (wishes.seat === null) && lead === wishes.lead,
  );
  return (
    <View style={styles.group}>
      <Soft>How still</Soft>
      <Choice label="How still" value={wishes.still} options={STILL} onChange={(still) => wish({ still })} />
      <Soft>How much of the window the subject fills</Soft>
      <Choice
        label="How tight"
        value={tight}
        options={TIGHT}
        onChange={(value) => wish({ fills: TIGHT.find((option) => option.value === value)?.fills ?? null })}
      />
      {wishes.fills !== null && (
        <>
          <Soft>The master is enlarged at most</Soft>
          <Choice
            label="Enlarged at most"
            value={String(wishes.mostEnlarged)}
            options={SHARP}
            onChange={(value) => wish({ mostEnlarged: Number(value) })}
          />
        </>
      )}
      <Soft>Where it sits</Soft>
      <Choice
        label="Where it sits"
        value={sits}
        options={SITS}
        onChange={(value) => {
          const option = SITS.find((other) => other.value === value);
          if (option) wish({ seat: option.seat, lead: option.lead });
        }}
      />
    </View>
  );
}

const styles = StyleSheet.create({ group: { gap: space.xs } });
