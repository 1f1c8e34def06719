import { create } from 'zustand';
import type { PostRecord } from '@core/job/records';
import type { Audience } from '@core/outlets/audience';
import {
  againPath,
  audiencePath,
  type DispatchedPost,
  POSTED,
  POSTED_EVENTS,
  postedListSchema,
  postedPath,
  postedPicture,
  postedSchema,
  type PostEdit,
  takeDownPath,
} from '@core/posting/post-order';
import type { Trouble } from '@core/trouble/trouble';
import { loadAccounts } from './accounts';
import { dropPost, putPost, useJobs } from '../job';
import { askBytes, askDone, askJson, type ServerName, serverTrouble } from '../server';

export const POSTING: ServerName = { who: 'The server', errand: 'post' };

interface PostedState {
  /** Posts that the server has of this browser, by id. */
  posts: Readonly<Record<string, DispatchedPost>>;
  /** Error of the last action on a post, by its ID. */
  troubles: Readonly<Record<string, Trouble>>;
  /** State of the answers: asking, all told, or `down` while the server does not answer. */
  heard: 'asking' | 'all' | 'down';
}

/** Posts as they stand on the server. */
export const useFollowedPosts = create<PostedState>(() => ({ posts: {}, troubles: {}, heard: 'asking' }));

/** Takes what the server says of posts, unless more is known of them already, and notes it with their jobs. */
export async function takePosted(...told: readonly DispatchedPost[]): Promise<void> {
  const before = useFollowedPosts.getState().posts;
  // A post may be told of before its job has noted it: what is known then is noted now.
  const latest = told.map((post) => {
    const known = before[post.id];
    return known && known.version > post.version ? known : post;
  });
  const byId = new Map<string, DispatchedPost>(latest.map((post) => [post.id, post]));
  useFollowedPosts.setState(({ posts }) => ({ posts: { ...posts, ...Object.fromEntries(byId) } }));
  // What holds one may be its account.
  const isHeld = ({ id, state }: DispatchedPost) =>
    state === 'held' && before[id] && before[id].state !== 'held';
  if (latest.some(isHeld)) void loadAccounts();
  for (const { head, posts } of Object.values(useJobs.getState().listed)) {
    for (const known of posts) {
      const post = byId.get(known.id);
      const noted = post && withState(known, post);
      if (noted && JSON.stringify(noted) !== JSON.stringify(known)) await putPost(head.id, noted);
    }
  }
}

const withState = (record: PostRecord, { state, reasons, page, words }: DispatchedPost): PostRecord => ({
  ...record,
  ...{ state, reasons, page, title: words.title, audience: words.audience },
});

/** Asks where all posts stand. @throws TroubleError */
async function loadPosted(): Promise<void> {
  const { posts } = await askJson(POSTING, POSTED, postedListSchema);
  await takePosted(...posts);
}

async function hear(): Promise<void> {
  const heard = await loadPosted().then(
    () => 'all' as const,
    () => 'down' as const,
  );
  useFollowedPosts.setState({ heard });
}

let listeners = 0;
let source: EventSource | null = null;

/** Hears of every change of a post while somebody listens. @returns what ends it. */
export function followPosted(): () => void {
  listeners += 1;
  if (!source) {
    source = new EventSource(POSTED_EVENTS);
    // Also once the server is there again: what changed meanwhile is asked for.
    source.onopen = () => void hear();
    source.onerror = () => useFollowedPosts.setState({ heard: 'down' });
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const read = postedSchema.safeParse(JSON.parse(data));
      if (read.success) void takePosted(read.data);
    };
  }
  return () => {
    listeners -= 1;
    if (listeners > 0) return;
    source?.close();
    source = null;
  };
}

/** Asks something of a post, and takes what the server answers. */
async function askAboutPost(id: string, act: () => Promise<DispatchedPost | null>): Promise<void> {
  const { [id]: _old, ...troubles } = useFollowedPosts.getState().troubles;
  useFollowedPosts.setState({ troubles });
  try {
    const post = await act();
    if (post) await takePosted(post);
  } catch (error) {
    const trouble = serverTrouble(POSTING, error);
    useFollowedPosts.setState((state) => ({ troubles: { ...state.troubles, [id]: trouble } }));
  }
}

/** Changes a post that waits. @param edit makes what is changed; what it throws is told with the post. */
export const changePosted = (id: string, edit: () => Promise<PostEdit>): Promise<void> =>
  askAboutPost(id, async () =>
    askJson(POSTING, againPath(id), postedSchema, { method: 'POST', body: await edit(), long: true }),
  );

/** Posts again what came to nothing. */
export const postAgain = (id: string, edit: PostEdit): Promise<void> =>
  changePosted(id, () => Promise.resolve(edit));

/** Changes who may see what is up: so it is published, too. */
export const setPostAudience = (id: string, audience: Audience): Promise<void> =>
  askAboutPost(id, () =>
    askJson(POSTING, audiencePath(id), postedSchema, { method: 'PUT', body: { audience }, long: true }),
  );

export const takePostDown = (id: string): Promise<void> =>
  askAboutPost(id, () =>
    askJson(POSTING, takeDownPath(id), postedSchema, { method: 'POST', body: {}, long: true }),
  );

/** Calls a post back that is not up, or forgets one that is done with. @param job it is of. */
export const forgetPost = (job: string, id: string): Promise<void> =>
  askAboutPost(id, async () => {
    await askDone(POSTING, postedPath(id), { method: 'DELETE', long: true });
    useFollowedPosts.setState(({ posts: { [id]: _gone, ...posts } }) => ({ posts }));
    await dropPost(job, id);
    return null;
  });

/** A frame as it was sent, and as a viewer gets it; or why they cannot be had. */
export async function comparedPictures(
  id: string,
  frame: number,
): Promise<{ sent: Blob; viewed: Blob } | { trouble: Trouble }> {
  try {
    const sent = await askBytes(POSTING, postedPicture(id, 'sent', frame));
    return { sent, viewed: await askBytes(POSTING, postedPicture(id, 'viewed', frame)) };
  } catch (error) {
    return { trouble: serverTrouble(POSTING, error) };
  }
}
