import { Linking, StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { bytesLabel } from '@core/figures/figures';
import type { PostRecord } from '@core/job/records';
import { cancelPost, type Sending as SendingState } from '@state/posts';
import { Notice } from '../parts/notice';
import { StripBar } from '../parts/strip-bar';
import { Body, Soft } from '../parts/words';
import { card, space } from '../theme/tokens';
import { useRuleSheets } from '../job/use-target';

/** A post on its way. */
export function Sending({ sending, outlet }: { sending: SendingState; outlet: string }) {
  const { sent, total, judging } = sending;
  return (
    <View style={styles.sending}>
      <StripBar label={`Upload to ${outlet}`} done={sent} total={total} />
      <Soft>
        {judging ? `${outlet} checks the file` : `${bytesLabel(sent)} of ${bytesLabel(total)} sent`}
      </Soft>
      <Button style={styles.left} onPress={cancelPost}>
        Cancel
      </Button>
    </View>
  );
}

/** What an outlet said to a post. */
export function PostCard({ post }: { post: PostRecord }) {
  const outlet = useRuleSheets().find((sheet) => sheet.outlet === post.outlet)?.name ?? post.outlet;
  if (post.state === 'refused') {
    return (
      <Notice standing="stop" title={`${outlet} refused “${post.title}”.`}>
        <View>
          {post.reasons.map((reason) => (
            <Body key={reason}>{reason}</Body>
          ))}
        </View>
      </Notice>
    );
  }
  const { page } = post;
  return (
    <Notice
      standing="pass"
      title={`${outlet} took “${post.title}”.`}
      actions={
        page !== null && (
          <Button mode="outlined" icon="open-in-new" onPress={() => void Linking.openURL(page)}>
            {`See it on ${outlet}`}
          </Button>
        )
      }
    >
      {`It checked the file itself and shows it, ${post.audience}.`}
    </Notice>
  );
}

const styles = StyleSheet.create({
  sending: {
    gap: space.s,
    padding: space.m,
    ...card,
  },
  left: { alignSelf: 'flex-start' },
});
