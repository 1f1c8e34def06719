import { LIMITS } from '../../outlets/limits/limits';
import { postRule, outcome } from '../rule';

interface BrokenLimitValues {
  limit: string;
  reason: string;
}

/** Limits on a post that no rule tells of with words and a fix of its own. */
export const otherLimitsRule = postRule({
  name: 'Other limits on the post',
  reads: ['words', 'audience', 'target'],
  outlet: true,
  outcomes: {
    broken: outcome<BrokenLimitValues>(
      ({ reason }) => `${reason} Change the words of the post.`,
      ({ limit }) => `${limit}: over`,
    ),
    kept: outcome<object>(
      (_, { label }) => `The post keeps what else ${label} asks of it.`,
      () => 'kept',
    ),
  },
  check({ words, audience, target }) {
    const { title, description, tags, forChildren = null, longVideo = null } = words;
    // A cover has a rule of its own.
    const post = { title, description, tags, audience, forChildren, longVideo, cover: null };
    for (const { name, isPlainlyChecked, refusePost } of LIMITS) {
      const reason = (isPlainlyChecked && refusePost?.(post, target.placement)) ?? null;
      if (reason) return { severity: 'stop', code: 'broken', values: { limit: name, reason } };
    }
    return { severity: 'pass', code: 'kept', values: {} };
  },
});
