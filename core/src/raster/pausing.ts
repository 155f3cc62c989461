/** Rows of a plane between two pauses: some milliseconds of most work. */
export const PAUSE_ROWS = 64;

/** Work that pauses on its way, where others may be let in. */
export type Pausing<T> = Generator<void, T, void>;

/** Values of a plane between two pauses, where each is made by itself: a few milliseconds. */
const PART = 2 ** 18;

/** Works on a plane of so many values in parts, with a pause after each. */
export function* inParts(length: number, work: (from: number, to: number) => void): Pausing<void> {
  for (let from = 0; from < length; from += PART) {
    work(from, Math.min(length, from + PART));
    yield;
  }
}

/** Does it without a pause. */
export function atOnce<T>(work: Pausing<T>): T {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}

/** Does it with `breathe` awaited at every pause, which ends it by throwing. */
export async function inTurns<T>(work: Pausing<T>, breathe: (done: number) => Promise<void>): Promise<T> {
  try {
    for (;;) {
      const step = work.next();
      if (step.done) return step.value;
      await breathe(0);
    }
  } finally {
    // What it holds is let go, should it not have come to its end.
    work.return(undefined as T);
  }
}
