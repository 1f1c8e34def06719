import { Slot, useLocalSearchParams } from 'expo-router';
import { JobShell } from '@ui/job/job-shell';

export default function JobLayout() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <JobShell id={id} key={id}>
      <Slot />
    </JobShell>
  );
}
