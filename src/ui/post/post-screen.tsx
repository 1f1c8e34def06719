import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { listBlockingFindings } from '@core/check/check';
import { findingWords, ruleName } from '@core/check/finding';
import { fixCommand, fixLabel } from '@core/check/fixes';
import { exportToPost, isCurrent, postStops } from '@core/check/post-check';
import { chosenAudience, findPlacementByChoice } from '@core/job/audience';
import { collectChosenWords, isDifferent } from '@core/job/post-words';
import { isOut, type PostRecord } from '@core/job/records';
import type { Audience } from '@core/outlets/audience';
import { listLeftOut } from '@core/outlets/fit-to-abilities';
import { OWN_KEY } from '@core/outlets/outlets';
import { canPost } from '@core/posting/accounts';
import type { PostTime } from '@core/posting/when';
import {
  chooseAccount,
  loadAccounts,
  useAccounts,
  followPosted,
  useFollowedPosts,
  changePost,
  sendPost,
  useSendings,
} from '@state/posting';
import { dispatch, setCanvas, setClip } from '@state/job';
import { useClip, useFindings, useJob } from '../job/job-context';
import { JobPage } from '../job/job-page';
import { useRuleSheets, useTarget } from '../job/use-target';
import { Choice } from '../parts/choice';
import { Notice, TroubleNotice } from '../parts/notice';
import { Body, Heading, Soft } from '../parts/words';
import { colours, space } from '../theme/tokens';
import { AccountChoice, useChosenAccount } from './account-choice';
import { GapHint } from './gap-hint';
import { PostAll } from './post-all';
import { PostCard, Sending } from './post-card';
import { PostGrid } from './post-grid';
import { useOutletAbilities } from './outlet-abilities';
import { PostOptions } from './post-options';
import { PostStatements } from './post-statements';
import { PostWordsForm } from './post-words';
import { ServerNotice } from './server-notice';
import { listPosts } from './use-post-stand';
import { WhenChoice } from './when-choice';

const AUDIENCES: Record<Audience, string> = {
  private: 'Private',
  unlisted: 'Unlisted',
  friends: 'Friends',
  public: 'Public',
};

/** Lists the audiences that the outlet knows, and the one that is chosen. */
const listAudiences = (taken: readonly Audience[], chosen: Audience) =>
  [...new Set([...taken, chosen])].map((value) => ({ value, label: AUDIENCES[value] }));

/** Hears of posts while the page is open, and takes what it was opened for: an account just signed in with, a canvas. */
function usePostingPage(): void {
  const { id } = useJob();
  const asked = useLocalSearchParams<{ 'signed-in'?: string; clip?: string; canvas?: string }>();
  const { 'signed-in': signedIn, clip, canvas } = asked;
  useEffect(() => {
    if (clip !== undefined) setClip(id, clip);
    if (canvas !== undefined) setCanvas(id, canvas);
  }, [id, clip, canvas]);
  const account = useAccounts(({ accounts }) => accounts?.find(({ id }) => id === signedIn));
  useEffect(() => followPosted(), []);
  useEffect(() => void loadAccounts(), []);
  useEffect(() => {
    if (account) void chooseAccount(account);
  }, [account]);
}

/** Where the clip's canvases go, and how their posts stand; and the words and choices of the one at hand. */
export function PostScreen() {
  usePostingPage();
  const router = useRouter();
  const sheets = useRuleSheets();
  const job = useJob();
  const clip = useClip();
  const target = useTarget();
  const findings = useFindings();
  const { sending, troubles } = useSendings();
  const account = useChosenAccount(target.sheet.outlet);
  const abilities = useOutletAbilities(target.sheet.outlet);
  const posts = listPosts(job, clip.canvas);
  const posted = useFollowedPosts((state) => state.posts);
  const waiting = posts.map(({ id }) => posted[id]).find((post) => post?.state === 'waiting' && post.when);
  const [chosen, setWhen] = useState<{ canvas: string; when: PostTime | null } | null>(null);
  // What waits for a time is shown with it until another is chosen.
  const when = chosen?.canvas === clip.canvas ? chosen.when : (waiting?.when ?? null);
  const take = (next: PostTime | null) => setWhen({ canvas: clip.canvas, when: next });
  const ready = exportToPost(job, sheets);
  const again = posts.some((post) => post.exportId === ready?.id && isOut(post));
  const own = target.key === OWN_KEY;
  const stops = ready ? postStops(job, ready, sheets) : listBlockingFindings(findings ?? [], clip, 'post');
  const withIt = {
    cover: clip.text?.cover !== undefined,
    captions: (ready?.captions ?? []).length > 0,
    card: target.placement.longVideo !== 'none' && Boolean(clip.words.longVideo),
  };
  const audience = chosenAudience(clip, target.key);
  const isDraft = audience === 'private';
  const noDrafts = isDraft && abilities?.drafts.includes(target.placement.id) === false;
  const left = abilities ? listLeftOut(withIt, abilities) : [];
  const isSending = ready !== null && ready.id in sending;
  const isReady = ready !== null && !own && stops.length === 0 && !noDrafts && !isSending;
  const trouble = ready && troubles[ready.id];
  const name = target.sheet.name;
  const act = `${when === null ? 'Post' : 'Schedule'}${again ? ' again' : ''} ${when === null ? 'to' : 'for'} ${name}`;
  /** Makes the change of a post that waits, where something is written or chosen otherwise below. */
  const toChange = ({ id, exportId }: PostRecord): (() => void) | null => {
    const post = posted[id];
    const record = job.exports.find((made) => made.id === exportId);
    if (!post || !record || !account) return null;
    // What missed its time, or waits for its person, may get another time; by hand it goes out now.
    const isOpen = post.state === 'waiting' || (when !== null && ['missed', 'held'].includes(post.state));
    if (!isOpen) return null;
    const isOther =
      isDifferent(post.words, collectChosenWords(clip, target.sheet.outlet, post.words.placement)) ||
      post.account !== account.id ||
      JSON.stringify(post.when) !== JSON.stringify(when);
    return isOther ? () => void changePost(job, id, record, { account, when }) : null;
  };
  return (
    <JobPage
      title="Post"
      subtitle={`To ${name}`}
      tray={
        <>
          {account && <Soft numberOfLines={1}>{`As ${account.account.name}`}</Soft>}
          <Button
            mode="contained"
            disabled={!isReady || !account || !canPost(account)}
            contentStyle={styles.act}
            accessibilityLabel={account ? `${act} as ${account.account.name}` : act}
            onPress={() => ready && account && void sendPost(job, ready, { account, when })}
          >
            {act}
          </Button>
        </>
      }
    >
      <ServerNotice />
      <PostGrid />
      <PostAll when={when} />
      {trouble && <TroubleNotice trouble={trouble} />}
      {ready && sending[ready.id] && <Sending exportId={ready.id} sending={sending[ready.id]!} />}
      {posts.map((post, n) => (
        <PostCard key={post.id} post={post} onChange={toChange(post)} isLast={n === 0} />
      ))}
      {own && (
        <Notice standing="note" title="This canvas goes to no outlet.">
          It has a custom size. Save the file from the export page, or choose a placement for the canvas.
        </Notice>
      )}
      {!ready && !own && (
        <Notice
          standing="note"
          title="There is no export to post yet."
        >{`Export the clip for ${target.label} first.`}</Notice>
      )}
      {stops.map((finding) => (
        <Notice
          key={finding.rule}
          standing="stop"
          title={`Kept back: ${ruleName(finding.rule)}`}
          actions={
            finding.fix ? (
              <Button
                mode="contained"
                onPress={() => finding.fix && dispatch(job.id, fixCommand(finding.fix))}
              >
                {fixLabel(finding.fix)}
              </Button>
            ) : undefined
          }
        >
          {findingWords(finding, target)}
        </Notice>
      ))}
      {ready && (
        <Soft>
          Sends {ready.fileName}.
          {isCurrent(job, ready) ? '' : ' It was made before your last changes to the clip.'}
        </Soft>
      )}
      {ready && left.length > 0 && (
        <Soft>{`${name} does not take ${left.join(' and ')}: the rest goes there.`}</Soft>
      )}
      {!own && <AccountChoice sheet={target.sheet} />}
      <PostWordsForm />
      <PostStatements />
      {abilities && <PostOptions abilities={abilities} account={account} />}
      <View style={styles.group}>
        <Heading>Who can see it</Heading>
        <Choice
          label="Who can see it"
          value={audience}
          options={listAudiences(target.placement.audiences, audience)}
          onChange={(next) => {
            const placement = findPlacementByChoice(clip, target.key, next, sheets);
            dispatch(job.id, { type: 'set-audience', audience: next, ...(placement && { placement }) });
          }}
        />
        {clip.audiences?.[target.key] && (
          <Soft>{`For ${target.label} alone: the other placements keep theirs.`}</Soft>
        )}
        {isDraft && (
          <Body style={styles.soft}>
            {noDrafts
              ? `Nothing can be private on ${target.label}: choose who can see it.`
              : 'Only you, until you have looked at it there and publish it.'}
          </Body>
        )}
      </View>
      {!own && <WhenChoice value={when} onChange={take} />}
      {!own && account && (
        <GapHint {...(waiting ? { id: waiting.id } : {})} account={account} when={when} onTake={take} />
      )}
      <Button style={styles.left} icon="calendar-week" onPress={() => router.push('/schedule')}>
        See the week
      </Button>
    </JobPage>
  );
}

const styles = StyleSheet.create({
  act: { minHeight: 52 },
  group: { gap: space.s },
  soft: { color: colours.softInk },
  left: { alignSelf: 'flex-start' },
});
