import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import type { Trouble } from '@core/trouble/trouble';
import { checkTrouble, type ReportKind } from '@state/check';
import { TroubleNotice } from '../parts/notice';
import { saveFile } from '../parts/pick-file';
import { Heading, Soft } from '../parts/words';
import { space } from '../theme/tokens';

const KINDS: { kind: ReportKind; label: string }[] = [
  { kind: 'html', label: 'Page to print' },
  { kind: 'csv', label: 'CSV' },
  { kind: 'json', label: 'JSON' },
];

interface Props {
  /** Subject of the report, in a line. */
  about: string;
  make: (kind: ReportKind) => Promise<File>;
}

/** Buttons that save the findings as a file. */
export function ReportButtons({ about, make }: Props) {
  const [making, setMaking] = useState(false);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const save = async (kind: ReportKind) => {
    setMaking(true);
    setTrouble(null);
    try {
      saveFile(await make(kind));
    } catch (error) {
      setTrouble(checkTrouble(error));
    } finally {
      setMaking(false);
    }
  };
  return (
    <View style={styles.group}>
      <Heading>Report</Heading>
      {trouble && <TroubleNotice trouble={trouble} />}
      <Soft>{making ? 'Making the report…' : about}</Soft>
      <View style={styles.row}>
        {KINDS.map(({ kind, label }) => (
          <Button
            key={kind}
            icon="download-outline"
            accessibilityLabel={`Save the report as ${label}`}
            disabled={making}
            onPress={() => void save(kind)}
          >
            {label}
          </Button>
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.xs },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
