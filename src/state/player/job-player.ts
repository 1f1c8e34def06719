import { type Cut, findRangeIndex } from '@core/cut/cut';
import { activeClip, type Job, mainMaster, listSources } from '@core/job/job';
import type { Source } from '@core/master/source';
import { clamp, type Size } from '@core/picture/size';
import { Player, type PlayerListener } from '@media/play/player';
import type { SoundPiece, Quality, Speed, View } from '@media/play/player-protocol';
import { type Draft, NO_JOB, usePlayer } from './player-store';
import { PlayerViews } from './player-views';
import { draftWords, redrawDragged, planPreviews, type PreviewPlans, type WordsDraft } from './preview-plans';

/** A job on the player: it goes as a whole when the job is left. */
interface Session {
  player: Player;
  job: Job;
  sources: readonly Source[];
  plans: PreviewPlans;
  /** The end card or the cover that is shown in the place of the clip, whatever changes in the job. */
  standing: WordsDraft | null;
}

/** A frame that came on screen. */
type ShownFrame = Parameters<PlayerListener['onFrame']>[0];

/** How fast ranges are played, and whether the end card follows. */
interface PlayRequest {
  speed?: Speed;
  card?: boolean;
}

/** Plays one job at a time on the views of the page; `usePlayer` has its state. */
export class JobPlayer {
  private session: Session | null = null;
  /** The range of the cut that the first piece under way is of. */
  private firstRange = 0;
  private readonly views = new PlayerViews((sizes) => this.session?.player.setViews(sizes));

  /** Puts a job on the player, or hands it a change of the job that is on it. */
  openJob(job: Job): void {
    const session = this.session?.job.id === job.id ? this.session : this.begin(job);
    const sources = listSources(job);
    if (JSON.stringify(sources) !== JSON.stringify(session.sources)) session.player.open(sources);
    session.job = job;
    session.sources = sources;
    session.plans = planPreviews(job);
    session.player.setPlans(session.plans);
    const { draft } = usePlayer.getState();
    if (draft) this.setDraft(draft);
    if (session.standing) this.setWordsDraft(session.standing);
  }

  private begin(job: Job): Session {
    this.dispose();
    const [first] = activeClip(job.edit).cut;
    const master = first?.master ?? mainMaster(job).id;
    const frame = first?.in ?? 0;
    usePlayer.setState({ jobId: job.id, master, frame });
    const sources = listSources(job);
    const player = new Player(sources, {
      onFrame: (event) => this.takeFrame(event),
      onQuality: (quality) => usePlayer.setState({ quality }),
      onEnded: () => usePlayer.setState({ playing: false, range: null }),
      onTrouble: (trouble) => usePlayer.setState({ trouble, playing: false }),
    });
    this.session = { player, job, sources, plans: {}, standing: null };
    player.setViews(this.views.all);
    player.show(Math.max(0, this.getPlace(master)), frame);
    return this.session;
  }

  private takeFrame({ source, frame, piece, pictures }: ShownFrame): void {
    const master = this.session?.sources[source]?.id;
    const { playing } = usePlayer.getState();
    usePlayer.setState({
      shown: frame,
      ...(playing && master !== undefined && piece !== null
        ? { frame, master, range: this.firstRange + piece.index }
        : {}),
    });
    for (const [view, picture] of Object.entries(pictures) as [View, ImageBitmap][])
      this.views.show(view, picture);
  }

  /** The place of a master among those on the player; −1 where it is none of them. */
  private getPlace(master: string): number {
    return this.session?.sources.findIndex((source) => source.id === master) ?? -1;
  }

  /** Takes a new proxy of a master into use. */
  findProxy(fingerprint: string): void {
    const { player, sources } = this.session ?? {};
    if (sources?.some((source) => source.fingerprint === fingerprint)) player?.findProxies();
  }

  /** Ends the player: the job was left, or deleted, or its bytes came back. The views stay for the next job. */
  dispose(): void {
    this.session?.player.close();
    this.session = null;
    this.views.clear();
    usePlayer.setState(NO_JOB);
  }

  /**
   * Puts a view on screen. @param paint must draw at once: the picture is closed when the next comes. @returns takes the
   * view off again.
   */
  mountView(view: View, size: Size, paint: (picture: ImageBitmap) => void): () => void {
    return this.views.mount(view, size, paint);
  }

  /** Shows a frame of a master, or of the one on screen; playing stops. */
  showFrame(frame: number, master = usePlayer.getState().master): void {
    const source = this.session?.sources[this.getPlace(master)];
    if (!source) return;
    const shown = clamp(frame, 0, source.frames - 1);
    usePlayer.setState({ master, frame: shown, playing: false, range: null });
    this.session?.player.show(this.getPlace(master), shown);
  }

  /** Steps by so many frames of the master on screen. */
  stepFrames(by: number): void {
    this.showFrame(usePlayer.getState().frame + by);
  }

  /** Plays the clip on from the frame on screen, or from its start when that is its end or not in it; or pauses. */
  togglePlay(): void {
    const { playing, frame, master } = usePlayer.getState();
    if (playing) return this.pause();
    if (!this.session) return;
    const { cut } = activeClip(this.session.job.edit);
    const index = findRangeIndex(cut, master, frame);
    const range = cut[index];
    const ended = index === cut.length - 1 && range !== undefined && frame >= range.out - 1;
    if (!range || ended) return this.playRanges(cut, 0);
    this.playRanges([{ ...range, in: frame }, ...cut.slice(index + 1)], index);
  }

  private pause(): void {
    this.session?.player.pause();
    usePlayer.setState({ playing: false, range: null });
  }

  /** Plays a cut from its start, and the end card: the clip's own cut, or one that is only proposed. */
  playCut(cut: Cut, speed: Speed = 1): void {
    this.playRanges(cut, 0, { speed });
  }

  /** Plays pieces that are only to be looked at. */
  playPieces(pieces: Cut): void {
    this.playRanges(pieces, 0, { card: false });
  }

  private playRanges(cut: Cut, from: number, { speed = 1, card = true }: PlayRequest = {}): void {
    const [first] = cut;
    if (!this.session || !first) return;
    const pieces: SoundPiece[] = cut.map((range) => ({
      source: this.getPlace(range.master),
      from: range.in,
      to: range.out,
    }));
    this.firstRange = from;
    usePlayer.setState({ playing: true, master: first.master, frame: first.in, range: from });
    this.session.player.play(pieces, usePlayer.getState().wish, speed, card);
  }

  /** Chooses how finely it plays; `auto` steps down by itself where playing falls behind. */
  setQuality(wish: Quality | 'auto'): void {
    usePlayer.setState({ wish, ...(wish === 'auto' ? {} : { quality: wish }) });
  }

  /** Shows framings while they are being dragged; null goes back to the job's own. */
  setDraft(draft: Draft | null): void {
    usePlayer.setState({ draft });
    if (!this.session) return;
    const { player, job, plans } = this.session;
    player.redraw(draft ? redrawDragged(job, draft, plans) : {});
  }

  /** Shows words while they are being moved or written; null goes back to the job's own. */
  setWordsDraft(draft: WordsDraft | null): void {
    if (!this.session) return;
    this.session.standing = draft && draft.side !== 'clip' ? draft : null;
    const { player, plans, sources } = this.session;
    const { playing, frame } = usePlayer.getState();
    const isOnScreen = (view: View) => this.views.all[view] !== undefined;
    const playhead = playing ? null : frame;
    player.showWords(draft ? draftWords(draft, { plans, sources, isOnScreen, playhead }) : {});
  }
}
