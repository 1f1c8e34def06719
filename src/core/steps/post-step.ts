import { formatCount } from '../figures/figures';
import { activeCanvas } from '../job/clip';
import { activeClip } from '../job/job';
import { isPosted } from '../job/records';
import { isUnderWay } from '../posting/post-order';
import { findTarget } from '../outlets/outlets';
import type { StepKind } from './step';

export const postStep: StepKind = {
  title: 'Post',
  stand({ job: { edit, posts: all }, sheets }) {
    const clip = activeClip(edit);
    const posts = all.filter((post) => post.clip === clip.id);
    const up = posts.filter(isPosted).length;
    const going = posts.filter(
      (post) => post.state !== 'accepted' && isUnderWay({ state: post.state }),
    ).length;
    if (posts.some(({ state }) => state === 'held' || state === 'missed'))
      return { summary: 'A post waits for you', standing: 'stop' };
    if (posts[0]?.state === 'refused') return { summary: 'Refused: see why', standing: 'stop' };
    if (posts[0]?.state === 'failed') return { summary: 'Posting failed: see why', standing: 'stop' };
    if (going > 0)
      return {
        summary: formatCount(going, 'post is on its way', 'posts are on their way'),
        standing: 'open',
      };
    if (up > 0) return { summary: formatCount(up, 'post is up', 'posts are up'), standing: 'pass' };
    return { summary: `To ${findTarget(sheets, activeCanvas(clip)).sheet.name}, not yet`, standing: 'open' };
  },
};
