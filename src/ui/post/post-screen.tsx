import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { heldBack } from '@core/check/check';
import { exportToPost, isCurrent, postStops } from '@core/check/post-check';
import { findingWords, ruleName } from '@core/check/finding';
import { fixCommand, fixLabel } from '@core/check/fixes';
import type { Audience } from '@core/outlets/audience';
import { OWN_KEY } from '@core/outlets/outlets';
import { dispatch } from '@state/jobs';
import { sendPost, usePosts } from '@state/posts';
import { CanvasRow } from '../frame/canvas-cards';
import { useClip, useFindings, useJob } from '../job/job-context';
import { JobPage } from '../job/job-page';
import { useRuleSheets, useTarget } from '../job/use-target';
import { Choice } from '../parts/choice';
import { Notice, TroubleNotice } from '../parts/notice';
import { Body, Heading, Soft } from '../parts/words';
import { colours, space } from '../theme/tokens';
import { PostCard, Sending } from './post-card';
import { PostStatements } from './post-statements';
import { PostWords } from './post-words';

const AUDIENCES: Record<Audience, string> = {
  private: 'Private',
  unlisted: 'Unlisted',
  friends: 'Friends',
  public: 'Public',
};

/** Those that the outlet knows, and the one that is chosen. */
const audiencesFor = (taken: readonly Audience[], chosen: Audience) =>
  [...new Set([...taken, chosen])].map((value) => ({ value, label: AUDIENCES[value] }));

/** Sends the exported clip to its outlet with its words, and shows what the outlet says. */
export function PostScreen() {
  const sheets = useRuleSheets();
  const job = useJob();
  const clip = useClip();
  const target = useTarget();
  const findings = useFindings();
  const trouble = usePosts((state) => state.trouble);
  const sending = usePosts((state) => state.sending);
  const ready = exportToPost(job, sheets);
  const again = job.posts.some((post) => post.exportId === ready?.id && post.state === 'accepted');
  const own = target.key === OWN_KEY;
  const stops = ready ? postStops(job, ready, sheets) : heldBack(findings ?? [], clip, 'post');
  return (
    <JobPage
      title="Post"
      subtitle={`To ${target.sheet.name}`}
      tray={
        <Button
          mode="contained"
          disabled={!ready || own || stops.length > 0 || sending !== null}
          contentStyle={styles.act}
          onPress={() => ready && void sendPost(job, ready)}
        >
          {`Post ${again ? 'again ' : ''}to ${target.sheet.name}`}
        </Button>
      }
    >
      <CanvasRow />
      {trouble && <TroubleNotice trouble={trouble} />}
      {sending?.jobId === job.id && <Sending sending={sending} outlet={target.sheet.name} />}
      {job.posts
        .filter((post) => post.clip === clip.id)
        .map((post) => (
          <PostCard key={post.id} post={post} />
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
      <PostWords />
      <PostStatements />
      <View style={styles.group}>
        <Heading>Who can see it</Heading>
        <Choice
          label="Who can see it"
          value={clip.audience}
          options={audiencesFor(target.placement.audiences, clip.audience)}
          onChange={(audience) => dispatch(job.id, { type: 'set-audience', audience })}
        />
        {clip.audience === 'private' && (
          <Body style={styles.soft}>Only you, until you have checked it there.</Body>
        )}
      </View>
    </JobPage>
  );
}

const styles = StyleSheet.create({
  act: { minHeight: 52 },
  group: { gap: space.s },
  soft: { color: colours.softInk },
});
