import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { reportCsv, reportJson, reportRows } from '@core/interchange/check-report';
import { jobFileStem } from '@core/interchange/job-file';
import { useJob } from '../job/job-context';
import { useRuleSheets } from '../job/use-target';
import { saveFile } from '../parts/pick-file';
import { Heading, Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { useBoard } from './use-board';

/** What was found of every clip, as a file. */
export function ReportButtons() {
  const job = useJob();
  const sheets = useRuleSheets();
  const cells = useBoard();
  const save = (ending: 'csv' | 'json') => {
    const rows = reportRows([{ title: job.title, work: job, cells }], sheets);
    const text = ending === 'csv' ? reportCsv(rows) : reportJson(rows, new Date().toISOString());
    const type = ending === 'csv' ? 'text/csv' : 'application/json';
    saveFile(new File([text], `${jobFileStem(job)}.check.${ending}`, { type }));
  };
  return (
    <View style={styles.group}>
      <Heading>Report</Heading>
      <Soft>Every finding of every clip, with what was let pass and why.</Soft>
      <View style={styles.row}>
        <Button icon="download-outline" disabled={cells.length === 0} onPress={() => save('csv')}>
          Save as CSV
        </Button>
        <Button icon="download-outline" disabled={cells.length === 0} onPress={() => save('json')}>
          Save as JSON
        </Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.xs },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
