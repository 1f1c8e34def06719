import { useFollowedPosts } from '@state/posting';
import { Notice } from '../parts/notice';

/** Says that the server does not tell how posts stand, while it does not. */
export function ServerNotice() {
  const heard = useFollowedPosts((state) => state.heard);
  if (heard !== 'down') return null;
  return (
    <Notice standing="warn" title="The server does not answer">
      Posts are kept there, and are shown as they stand once it answers. It is asked again by itself.
    </Notice>
  );
}
