import { activeCanvas } from '../job/clip';
import { activeClip } from '../job/job';
import { targetOf } from '../outlets/outlets';
import { count, type StepKind } from './step';

export const postStep: StepKind = {
  title: 'Post',
  stand({ job: { edit, posts: all }, sheets }) {
    const clip = activeClip(edit);
    const posts = all.filter((post) => post.clip === clip.id);
    const accepted = posts.filter((post) => post.state === 'accepted').length;
    if (posts[0]?.state === 'refused') return { summary: 'Refused: see why', standing: 'stop' };
    if (accepted > 0) return { summary: count(accepted, 'post is up', 'posts are up'), standing: 'pass' };
    return { summary: `To ${targetOf(sheets, activeCanvas(clip)).sheet.name}, not yet`, standing: 'open' };
  },
};
