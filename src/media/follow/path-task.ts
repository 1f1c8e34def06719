import loadHighs from 'highs';
import wasm from 'highs/runtime';
import { programText, type SolveProgram, readValues } from '@core/follow/linear-program';
import { type FollowResult, followShot, type FollowTask } from '@core/follow/solve';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';

/** Shots of which the paths are wanted. */
export interface PathRequest {
  shots: FollowTask[];
}

/** Opens HiGHS. */
async function openSolver(): Promise<SolveProgram> {
  const highs = await loadHighs({ locateFile: () => wasm });
  return (program) => {
    const { Status, Columns } = highs.solve(programText(program));
    if (Status !== 'Optimal') throw new Error(`the path has no solution: ${Status}`);
    return readValues(program, (name) => Columns[name]?.Primal);
  };
}

/** Finds the path of each shot, in their order; null for one that has none. @throws TroubleError `cancelled`. */
export async function findPaths(
  { shots }: PathRequest,
  context: TaskContext,
): Promise<(FollowResult | null)[]> {
  const solve = await openSolver();
  const found: (FollowResult | null)[] = [];
  for (const shot of shots) {
    // An order to stop is heard between shots.
    await new Promise((resolve) => setTimeout(resolve));
    throwIfStopped(context.signal);
    found.push(findPath(shot, solve));
    context.report({ stage: 'path', done: found.length, total: shots.length });
  }
  return found;
}

function findPath(shot: FollowTask, solve: SolveProgram): FollowResult | null {
  try {
    return followShot(shot, solve);
  } catch (error) {
    // The others are found all the same.
    console.error('a path could not be found', error);
    return null;
  }
}
