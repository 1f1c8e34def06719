import { useRouter } from 'expo-router';
import { Linking, StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { fixCommand, fixLabel } from '@core/check/fixes';
import { exportToPost, isCurrent } from '@core/check/post-check';
import { bytesLabel } from '@core/figures/figures';
import type { PostRecord } from '@core/job/records';
import { isUnderWay, type DispatchedPost } from '@core/posting/post-order';
import { dispatch } from '@state/job';
import {
  forgetPost,
  postAgain,
  setPostAudience,
  takePostDown,
  useFollowedPosts,
  cancelSending,
  type PostUpload as SendingState,
} from '@state/posting';
import { useFindings, useJob } from '../job/job-context';
import { useRuleSheets } from '../job/use-target';
import { DestructiveButton } from '../parts/destructive-button';
import { Notice, TroubleNotice } from '../parts/notice';
import { StripBar } from '../parts/strip-bar';
import { Body, Soft } from '../parts/words';
import { card, space } from '../theme/tokens';
import { ComparedView } from './compared-view';
import { HOLDS, postTitle, whenWords } from './post-states';

/** A file on its way to the server. */
export function Sending({ exportId, sending }: { exportId: string; sending: SendingState }) {
  const { sent, total } = sending;
  return (
    <View style={styles.sending}>
      <StripBar label="Upload to the server" done={sent} total={total} />
      <Soft>{`${bytesLabel(sent)} of ${bytesLabel(total)} are on the server. Keep this page open until all are.`}</Soft>
      <Button style={styles.left} onPress={() => cancelSending(exportId)}>
        Cancel
      </Button>
    </View>
  );
}

interface Props {
  post: PostRecord;
  /** Gives what is not out yet the words and the time below; null where they are its own. */
  onChange: (() => void) | null;
  /** True when it is the newest of its canvas. */
  isLast: boolean;
}

/** A post: how it stands, and what can be done with it now. */
export function PostCard({ post, onChange, isLast }: Props) {
  const job = useJob();
  const outlet = useRuleSheets().find((sheet) => sheet.outlet === post.outlet)?.name ?? post.outlet;
  const posted = useFollowedPosts((state) => state.posts[post.id]) ?? null;
  const trouble = useFollowedPosts((state) => state.troubles[post.id]);
  const { standing, title } = postTitle(post, outlet);
  return (
    <Notice standing={standing} title={title} actions={<Acts post={post} posted={posted} outlet={outlet} />}>
      <View style={styles.words}>
        {post.account !== undefined && <Soft>{`As ${post.account}.`}</Soft>}
        {post.reasons.map((reason) => (
          <Body key={reason}>{reason}</Body>
        ))}
        {posted && <Progress posted={posted} outlet={outlet} />}
        {posted?.compared && <ComparedView post={posted} compared={posted.compared} />}
        {trouble && <TroubleNotice trouble={trouble} />}
        {isLast && post.state === 'refused' && <Mending />}
        {onChange && (
          <Button mode="outlined" style={styles.left} onPress={onChange}>
            Update it with the changes below
          </Button>
        )}
        {posted && isUnderWay(posted) && (
          <DestructiveButton style={styles.left} onPress={() => void forgetPost(job.id, post.id)}>
            Cancel this post
          </DestructiveButton>
        )}
      </View>
    </Notice>
  );
}

/** How far it is, and what it waits for. */
function Progress({ posted, outlet }: { posted: DispatchedPost; outlet: string }) {
  const { state, when, ahead, wait, hold, sent, bytes, share } = posted;
  if (state === 'held') return <Body>{hold === null ? '' : HOLDS[hold]}</Body>;
  if (state === 'waiting')
    return (
      <Body>
        {wait === null
          ? when === null
            ? 'It is the next one, or waits for its turn.'
            : `It goes out on ${whenWords(when)}. ${ahead ? `${outlet} has it already, and puts it up by itself` : 'Its file and words are kept on the server until then'}.`
          : WAITS[wait.why](outlet)}
      </Body>
    );
  if (state === 'sending') return <StripBar label={`Upload to ${outlet}`} done={sent} total={bytes} />;
  if (state === 'processing') return <StripBar label={`${outlet} processes it`} done={share} total={1} />;
  if (state === 'missed')
    return (
      <Body>The server was off at its time. Nothing was posted: post it now, or choose another time.</Body>
    );
  return null;
}

/** Fixes that our own check offers for the canvas at hand, also where its stop was let pass. */
function Mending() {
  const job = useJob();
  const router = useRouter();
  const fixes = (useFindings() ?? []).flatMap(({ severity, fix }) =>
    severity === 'stop' && fix ? [fix] : [],
  );
  const ready = exportToPost(job, useRuleSheets());
  const isStale = ready !== null && !isCurrent(job, ready);
  return (
    <View style={styles.mending}>
      {fixes.map((fix) => (
        <Button key={fixLabel(fix)} mode="contained" onPress={() => dispatch(job.id, fixCommand(fix))}>
          {fixLabel(fix)}
        </Button>
      ))}
      {fixes.length === 0 && isStale && (
        <Button mode="contained" onPress={() => router.replace(`/job/${job.id}/export`)}>
          Export it again
        </Button>
      )}
    </View>
  );
}

const WAITS: Record<NonNullable<DispatchedPost['wait']>['why'], (outlet: string) => string> = {
  down: (outlet) =>
    `${outlet} cannot be reached. The post is tried again automatically and goes on where it stopped.`,
  busy: (outlet) => `${outlet} is busy and asked us to wait. The post is tried again automatically.`,
  full: (outlet) => `${outlet} has no room for the file now. The post is tried again automatically.`,
  answer: (outlet) =>
    `${outlet} gave an answer that could not be read. The post is tried again automatically.`,
};

function Acts({ post, posted, outlet }: { post: PostRecord; posted: DispatchedPost | null; outlet: string }) {
  const job = useJob();
  const { id, page, state, audience } = post;
  const isUp = state === 'up' || state === 'accepted';
  return (
    <>
      {isUp && page !== null && (
        <Button mode="outlined" icon="open-in-new" onPress={() => void Linking.openURL(page)}>
          {`See it on ${outlet}`}
        </Button>
      )}
      {isUp && posted && audience !== 'public' && (
        <Button mode="contained" onPress={() => void setPostAudience(id, 'public')}>
          Publish
        </Button>
      )}
      {isUp && posted && (
        <Button onPress={() => void takePostDown(id)} accessibilityLabel={`Take it down from ${outlet}`}>
          Take it down
        </Button>
      )}
      {posted && (state === 'failed' || state === 'missed' || state === 'held') && (
        <Button mode="contained" onPress={() => void postAgain(id, { when: null })}>
          {state === 'missed' ? 'Post it now' : 'Try again'}
        </Button>
      )}
      {(state === 'failed' ||
        state === 'down' ||
        state === 'refused' ||
        state === 'missed' ||
        state === 'held') && (
        <Button onPress={() => void forgetPost(job.id, id)}>Remove from the list</Button>
      )}
    </>
  );
}

const styles = StyleSheet.create({
  sending: { gap: space.s, padding: space.m, ...card },
  words: { gap: space.s },
  mending: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  left: { alignSelf: 'flex-start' },
});
