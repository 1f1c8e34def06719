import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { DatePickerModal, enGB, registerTranslation, TimePickerModal } from 'react-native-paper-dates';
import { toTimestamp, type PostTime, toWhen, readTimeZone } from '@core/posting/when';
import { Choice } from '../parts/choice';
import { useNow } from '../parts/use-now';
import { Heading, Soft } from '../parts/words';
import { space, TARGET } from '../theme/tokens';

/** Days before months, and weeks from Monday, as everywhere here. */
const LOCALE = 'en-GB';
registerTranslation(LOCALE, enGB);

const HOUR = 3_600_000;
const zones: readonly string[] = Intl.supportedValuesOf('timeZone');
/** Zones that are offered for a search, at most. */
const MAX_OFFERED = 6;

const formatDate = (date: Date): string =>
  [date.getFullYear(), date.getMonth() + 1, date.getDate()]
    .map((part) => String(part).padStart(2, '0'))
    .join('-');

/** A day as the calendar takes it. @param date as `2026-11-30`. */
const toNoon = (date: string): Date => new Date(`${date}T12:00:00`);

/** The next whole hour that is at least an hour away. */
const nextHour = (zone: string): PostTime => toWhen(Math.ceil((Date.now() + HOUR) / HOUR) * HOUR, zone);

interface Props {
  value: PostTime | null;
  onChange: (when: PostTime | null) => void;
}

/** Now, or at a time of the clock in a zone. */
export function WhenChoice({ value, onChange }: Props) {
  const [picking, setPicking] = useState<'date' | 'time' | null>(null);
  const now = useNow();
  return (
    <View style={styles.group}>
      <Heading>When</Heading>
      <Choice
        label="When"
        value={value === null ? 'now' : 'later'}
        options={[
          { value: 'now', label: 'Now' },
          { value: 'later', label: 'Later' },
        ]}
        onChange={(when) => onChange(when === 'now' ? null : (value ?? nextHour(readTimeZone())))}
      />
      {value !== null && (
        <>
          <View style={styles.row}>
            <Button
              mode="outlined"
              contentStyle={styles.act}
              icon="calendar"
              accessibilityLabel={`Date: ${value.date}`}
              onPress={() => setPicking('date')}
            >
              {value.date}
            </Button>
            <Button
              mode="outlined"
              contentStyle={styles.act}
              icon="clock-outline"
              accessibilityLabel={`Time: ${value.time}`}
              onPress={() => setPicking('time')}
            >
              {value.time}
            </Button>
          </View>
          <ZoneField zone={value.zone} onChange={(zone) => onChange({ ...value, zone })} />
          <Told when={value} />
          <DatePickerModal
            locale={LOCALE}
            startWeekOnMonday
            mode="single"
            visible={picking === 'date'}
            date={toNoon(value.date)}
            validRange={{ startDate: toNoon(toWhen(now.getTime(), value.zone).date) }}
            onDismiss={() => setPicking(null)}
            onConfirm={({ date }) => {
              setPicking(null);
              if (date) onChange({ ...value, date: formatDate(date) });
            }}
          />
          <TimePickerModal
            locale={LOCALE}
            use24HourClock
            visible={picking === 'time'}
            hours={Number(value.time.slice(0, 2))}
            minutes={Number(value.time.slice(3))}
            onDismiss={() => setPicking(null)}
            onConfirm={({ hours, minutes }) => {
              setPicking(null);
              onChange({
                ...value,
                time: [hours, minutes].map((part) => String(part).padStart(2, '0')).join(':'),
              });
            }}
          />
        </>
      )}
    </View>
  );
}

/** Says the moment that a time means. */
function Told({ when }: { when: PostTime }) {
  const now = useNow();
  const moment = toTimestamp(when);
  const shifted = toWhen(moment, when.zone);
  const here = toWhen(moment, readTimeZone());
  return (
    <>
      {shifted.time !== when.time && (
        <Soft>{`The clocks go forward then: it goes out at ${shifted.time}.`}</Soft>
      )}
      {when.zone !== readTimeZone() && (
        <Soft>{`That is ${here.date}, ${here.time} on this device’s clock.`}</Soft>
      )}
      {moment < now.getTime() && <Soft role="alert">That time has gone by. Choose a later one.</Soft>}
      <Soft>
        The server keeps the file and the words until then, and posts also while this page is closed.
      </Soft>
    </>
  );
}

function ZoneField({ zone, onChange }: { zone: string; onChange: (zone: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const found = useMemo(() => {
    const words = (typed ?? '').toLowerCase().replaceAll(' ', '_');
    return words === ''
      ? []
      : zones.filter((name) => name.toLowerCase().includes(words)).slice(0, MAX_OFFERED);
  }, [typed]);
  return (
    <>
      <TextInput
        mode="outlined"
        dense
        label="Time zone"
        aria-label="Time zone"
        value={typed ?? zone.replaceAll('_', ' ')}
        onFocus={() => setTyped('')}
        onBlur={() => setTyped((text) => (text === '' ? null : text))}
        onChangeText={setTyped}
      />
      {typed !== null && typed !== '' && (
        <View style={styles.row}>
          {found.map((name) => (
            <Button
              key={name}
              mode="outlined"
              onPress={() => {
                onChange(name);
                setTyped(null);
              }}
            >
              {name.replaceAll('_', ' ')}
            </Button>
          ))}
          {found.length === 0 && <Soft>No time zone has that in its name.</Soft>}
        </View>
      )}
    </>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s, alignItems: 'center' },
  act: { minHeight: TARGET },
});
