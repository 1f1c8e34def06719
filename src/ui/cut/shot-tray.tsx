import { toBoundaries, type Boundary, moveBoundary, withBoundary, removeBoundary } from '@core/cut/shots';
import type { ActOf } from '@core/job/commands/commands';
import { dispatch } from '@state/job';
import { takeShots, usePasses } from '@state/master';
import { player, usePlayer } from '@state/player';
import { useJob } from '../job/job-context';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import { Soft } from '../parts/words';
import type { CutTools } from './use-cut';

/** Tools on the shots of the master on screen. */
export function ShotTray({ tools }: { tools: CutTools }) {
  const job = useJob();
  const { source, shots } = tools;
  const frame = usePlayer((state) => state.frame);
  const pass = usePasses((all) => all[source.fingerprint]);
  const index = shots.findIndex((shot) => frame >= shot.in && frame < shot.out);
  const shot = shots[index];
  const bounds = toBoundaries(shots);
  const setBoundaries = (act: ActOf<'set-shots'>, boundaries: Boundary[]) =>
    dispatch(job.id, {
      type: 'set-shots',
      act,
      master: source.id,
      old: shots,
      boundaries,
      frames: source.frames,
    });
  if (!shot) return null;
  const nearest =
    shot.in === 0 || (frame - shot.in > shot.out - frame && index < shots.length - 1) ? shot.out : shot.in;
  const go = (to: number) => shots[to] && player.showFrame(shots[to].in, source.id);
  return (
    <>
      <Soft aria-label="Shot on screen">
        {`Shot ${index + 1} of ${shots.length}. ${startWords(shot.start)}`}
      </Soft>
      <ToolRow>
        <Tool
          icon="skip-previous"
          label="Go to the shot before"
          words="Before"
          disabled={index === 0}
          onPress={() => go(index - 1)}
        />
        <Tool
          icon="skip-next"
          label="Go to the next shot"
          words="Next"
          disabled={index === shots.length - 1}
          onPress={() => go(index + 1)}
        />
        <Tool
          icon="plus-box-outline"
          label="Start a shot here"
          words="Start"
          disabled={frame === shot.in}
          onPress={() =>
            setBoundaries('add', withBoundary(bounds, frame, `${source.id}-${crypto.randomUUID()}`))
          }
        />
        <Tool
          icon="set-merge"
          label="Merge this shot with the one before"
          words="Merge"
          disabled={index === 0}
          onPress={() => setBoundaries('merge', removeBoundary(bounds, shot.in))}
        />
        <Tool
          icon="arrow-expand-horizontal"
          label="Move the nearest cut here"
          words="Cut here"
          disabled={shots.length === 1 || frame === shot.in}
          onPress={() => setBoundaries('move', moveBoundary(bounds, nearest, frame, source.frames))}
        />
        <Tool
          icon="playlist-plus"
          label="Keep this shot in the cut"
          words="Keep"
          onPress={() => tools.add({ master: source.id, in: shot.in, out: shot.out })}
        />
        <Tool
          icon="auto-fix"
          label="Use the shots that were found"
          words="Found"
          disabled={pass?.state !== 'done'}
          onPress={() => {
            const master = job.masters.find((master) => master.id === source.id);
            if (master && pass?.state === 'done') takeShots(job, master, pass.pass);
          }}
        />
      </ToolRow>
    </>
  );
}

function startWords(start: CutTools['shots'][number]['start']): string {
  if (!start) return 'The first.';
  const sure = `${Math.round(start.confidence * 100)} % sure`;
  switch (start.kind) {
    case 'cut':
      return `Begins with a cut, ${sure}.`;
    case 'dissolve':
      return `Begins with a dissolve of ${start.frames} frames, ${sure}.`;
    case 'fade':
      return `Begins in a fade, ${sure}.`;
    case 'set':
      return 'Begins where you or a list put it.';
  }
}
