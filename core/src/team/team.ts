import { type Checkpoint, done, type Given, type Made, type TaskName } from './tasks.ts';

/** Threads that share the work of one evaluation. */
export interface Team {
  /** How many work, this thread among them. */
  readonly size: number;
  /** A plane that all members see without its being copied for each; itself where there is nobody to share with. */
  shared(plane: Float32Array): Float32Array;
  /** A plane of zeros that `shared` gives back as it is. */
  empty(length: number): Float32Array;
  /**
   * Does tasks beside one another and hands over what each gives, in their order. `checkpoint` is awaited between this thread's
   * own tasks, and ends the work by throwing.
   */
  each<N extends TaskName>(
    name: N,
    tasks: readonly Given<N>[],
    take: (made: Made<N>, k: number) => void,
    checkpoint: Checkpoint,
  ): Promise<void>;
}

/** One thread, where there is no other or memory cannot be shared. */
export const ALONE: Team = {
  size: 1,
  shared: (plane) => plane,
  empty: (length) => new Float32Array(length),
  async each(name, tasks, take, checkpoint) {
    for (const [k, given] of tasks.entries()) {
      take(await done(name, given, checkpoint), k);
      await checkpoint((k + 1) / tasks.length);
    }
  },
};
