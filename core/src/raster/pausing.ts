/** Rows of a plane between two pauses: some milliseconds of most work. */
export const PAUSE_ROWS = 64;

/** Work that pauses on its way, where others may be let in. */
export type Pausing<T> = Generator<void, T, void>;

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
