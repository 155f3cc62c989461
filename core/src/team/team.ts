import { PLANES } from '../memory/pool.ts';
import type { Checkpoint } from '../work/checkpoint.ts';
import type { Task } from './task.ts';

/** Threads that share the work of one evaluation. */
export interface Team {
  /** How many work, this thread among them. */
  readonly size: number;
  /** A plane that all members see without its being copied for each; itself where there is nobody to share with. */
  shared(plane: Float32Array): Float32Array;
  /** A plane of zeros that `shared` gives back as it is. */
  empty(length: number): Float32Array;
  /** The same, in which anything may stand: one that was given, where there is one. */
  take(length: number): Float32Array;
  /** Releases memory that none of a team holds any more, where that waits to be asked. */
  collect?(): void;
  /** Takes planes back, to be written again. Whoever gives them must be the last to hold them; none may be given twice. */
  give(...planes: Float32Array[]): void;
  /**
   * Does a task for each of `given`, several at once, and hands over what each makes, in their order. `checkpoint` is awaited
   * between this thread's own tasks, and ends the work by throwing.
   */
  each<Given extends unknown[], Made>(
    task: Task<Given, Made>,
    given: readonly Given[],
    take: (made: Made, k: number) => void,
    checkpoint: Checkpoint,
  ): Promise<void>;
}

/** One thread, where there is no other or memory cannot be shared. */
export const ALONE: Team = {
  size: 1,
  shared: (plane) => plane,
  empty: (length) => new Float32Array(length),
  take: (length) => PLANES.take(length),
  give: (...planes) => PLANES.give(...planes),
  async each(task, given, take, checkpoint) {
    for (const [k, one] of given.entries()) {
      take(await task.run(checkpoint, ...one), k);
      await checkpoint((k + 1) / given.length);
    }
  },
};

/** A copy of a plane that all of a team see, to be given back. */
export function sharedCopy(plane: Float32Array, team: Team): Float32Array {
  const out = team.take(plane.length);
  out.set(plane);
  return out;
}
