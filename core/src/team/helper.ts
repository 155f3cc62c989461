import { done, type Given, type Made, type TaskName } from './tasks.ts';

/** A task on its way to a helper. */
export interface Asked {
  id: number;
  name: TaskName;
  given: unknown[];
}

/** What a helper made of it, or why it could not. */
export type Answer = { id: number; made: unknown } | { id: number; failure: string };

/** What a helper says first, once it can be asked. */
export const READY = 'ready';

/** Buffers of planes that can be handed over instead of being copied. */
function buffersOf(made: unknown): ArrayBuffer[] {
  if (Array.isArray(made)) return made.flatMap(buffersOf);
  return made instanceof Float32Array && made.buffer instanceof ArrayBuffer ? [made.buffer] : [];
}

/** On a helper nobody waits for anything else. */
const ON = async () => {};

/** A helper's side: does what it is asked and answers. */
export async function answered(
  { id, name, given }: Asked,
  answer: (answer: Answer, handedOver: ArrayBuffer[]) => void,
): Promise<void> {
  try {
    const made: Made<TaskName> = await done(name, given as Given<TaskName>, ON);
    answer({ id, made }, buffersOf(made));
  } catch (error) {
    answer({ id, failure: error instanceof Error ? error.message : String(error) }, []);
  }
}
