import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Button } from 'react-native-paper';
import { takeOverJob } from '@state/job';
import { Notice } from '../parts/notice';
import { useJob } from './job-context';

/** Says that another tab works on the job, and offers to go on with it here. */
export function WatchNotice() {
  const { id } = useJob();
  const router = useRouter();
  const [asked, setAsked] = useState(false);
  return (
    <Notice
      standing="note"
      title="Another tab works on this job."
      actions={
        <>
          <Button
            mode="contained"
            disabled={asked}
            onPress={() => {
              setAsked(true);
              takeOverJob(id);
            }}
          >
            {asked ? 'Asking the other tab…' : 'Continue here'}
          </Button>
          <Button onPress={() => router.dismissTo('/')}>Leave it in that tab</Button>
        </>
      }
    >
      You see here what is done there. If you go on here, the other tab stores what it did and only watches
      from then on.
    </Notice>
  );
}
