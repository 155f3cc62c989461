import type { AnyTask } from './task.ts';

/** A task on its way to a helper. */
export interface Asked {
  id: number;
  name: string;
  given: unknown[];
}

/** What a helper made of it, or why it could not. */
export type Answer = { id: number; made: unknown } | { id: number; failure: string };

/** What a helper says first, once it can be asked. */
export const READY = 'ready';

/** Buffers of planes that can be transferred instead of being copied. */
function buffersOf(made: unknown): ArrayBuffer[] {
  if (Array.isArray(made)) return made.flatMap(buffersOf);
  return made instanceof Float32Array && made.buffer instanceof ArrayBuffer ? [made.buffer] : [];
}

/** On a helper nobody waits for anything else. */
const ON = async () => {};

/** A helper's side: does the task it is asked, one of those it knows, and answers. */
export async function answerFrom(
  tasks: readonly AnyTask[],
  { id, name, given }: Asked,
  answer: (answer: Answer, transferred: ArrayBuffer[]) => void,
): Promise<void> {
  try {
    const task = tasks.find((one) => one.name === name);
    if (!task) throw new Error(`No task is called ${name}.`);
    const made = await task.run(ON, ...given);
    answer({ id, made }, buffersOf(made));
  } catch (error) {
    answer({ id, failure: error instanceof Error ? error.message : String(error) }, []);
  }
}
