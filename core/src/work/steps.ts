/** Rows of a plane between two pauses: some milliseconds of most work. */
export const PAUSE_ROWS = 64;

/** Work in steps, between which other work can run. */
export type Steps<T> = Generator<void, T, void>;

/** Values of a plane between two pauses, where each is made by itself: a few milliseconds. */
const PART = 2 ** 18;

/** Works on a plane of `length` values in parts, with a pause after each. */
export function* inParts(length: number, work: (from: number, to: number) => void): Steps<void> {
  for (let from = 0; from < length; from += PART) {
    work(from, Math.min(length, from + PART));
    yield;
  }
}

/** Runs all steps without a pause. */
export function runToEnd<T>(steps: Steps<T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** Runs all steps with `checkpoint` awaited between them, which ends the work by throwing. */
export async function runSteps<T>(steps: Steps<T>, checkpoint: (done: number) => Promise<void>): Promise<T> {
  try {
    for (;;) {
      const step = steps.next();
      if (step.done) return step.value;
      await checkpoint(0);
    }
  } finally {
    // What the steps keep is released, should they not have come to their end.
    steps.return(undefined as T);
  }
}
