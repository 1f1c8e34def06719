import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { useJobs } from '@state/job';
import type { JobListEntry } from '@state/job-list-entry';
import { Choice } from '../parts/choice';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { JobCard } from './job-card';

const ORDERS = [
  { value: 'changed', label: 'Changed last' },
  { value: 'title', label: 'By name' },
] as const;
type Order = (typeof ORDERS)[number]['value'];

/** Jobs from which on they are searched. */
const MANY = 4;
/** Cards that are drawn before more are asked for. */
const PAGE = 24;

/** Jobs whose title or a master's file name holds every word that is looked for. */
function findJobs(jobs: readonly JobListEntry[], wanted: string, order: Order): JobListEntry[] {
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  const toText = ({ head }: JobListEntry) =>
    [head.title, ...head.masters.map((master) => master.fileName)].join(' ').toLowerCase();
  return jobs
    .filter((job) => words.every((word) => toText(job).includes(word)))
    .sort((a, b) =>
      order === 'title'
        ? a.head.title.localeCompare(b.head.title)
        : b.head.changedAt.localeCompare(a.head.changedAt),
    );
}

/** Every job of this browser, with a search where there are many. */
export function JobList() {
  const listed = useJobs((state) => state.listed);
  const [wanted, setWanted] = useState('');
  const [order, setOrder] = useState<Order>('changed');
  const [most, setMost] = useState(PAGE);
  const all = Object.values(listed);
  const jobs = useMemo(() => findJobs(Object.values(listed), wanted, order), [listed, wanted, order]);
  return (
    <>
      {all.length >= MANY && (
        <View style={styles.search}>
          <TextInput
            mode="outlined"
            label="Find a job"
            aria-label="Find a job"
            value={wanted}
            onChangeText={setWanted}
          />
          <Choice label="Order of the jobs" value={order} options={ORDERS} onChange={setOrder} />
          <Soft aria-label="Jobs found">{`${jobs.length} of ${all.length} jobs`}</Soft>
        </View>
      )}
      <View role="list" aria-label="Jobs" style={styles.list}>
        {jobs.slice(0, most).map((job) => (
          <JobCard key={job.head.id} listed={job} />
        ))}
      </View>
      {jobs.length > most && (
        <Button mode="outlined" onPress={() => setMost(most + PAGE)}>
          {`Show ${Math.min(PAGE, jobs.length - most)} more`}
        </Button>
      )}
    </>
  );
}

const styles = StyleSheet.create({ search: { gap: space.s }, list: { gap: space.m } });
