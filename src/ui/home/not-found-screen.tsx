import { useRouter } from 'expo-router';
import { MissingScreen } from '../parts/missing-screen';

/** The page at an address that is none of the app's. */
export function NotFoundScreen() {
  const router = useRouter();
  return (
    <MissingScreen
      title="No such page"
      what="There is nothing at this address."
      leaveLabel="All jobs"
      onLeave={() => router.replace('/')}
    >
      It was typed wrong, or it is of another version of Gusset. Your jobs are kept.
    </MissingScreen>
  );
}
