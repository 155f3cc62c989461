import type { Checkpoint } from '../work/checkpoint.ts';

/** Work that any member of a team can do: it takes plain data and planes, and gives planes. */
export interface Task<Given extends unknown[], Made> {
  /** By which a helper knows it; different for every task. */
  name: string;
  run(checkpoint: Checkpoint, ...given: Given): Made | Promise<Made>;
}

// biome-ignore lint/suspicious/noExplicitAny: a list of tasks of any kind
export type AnyTask = Task<any[], unknown>;

/** Declares a task, beside the function it runs; helpers know those of the list in `engine/tasks.ts`. */
export const task = <Given extends unknown[], Made>(
  name: string,
  run: (checkpoint: Checkpoint, ...given: Given) => Made | Promise<Made>,
): Task<Given, Made> => ({ name, run });

/** What a task is given. */
export type GivenOf<T> = T extends Task<infer Given, unknown> ? Given : never;
