/** Awaited inside long loops with the share done, 0..1: yields to other work, and ends the work by throwing. */
export type Checkpoint = (done: number) => Promise<void>;
