import { Problem } from '@zesty-tile/core';
import type { CrateEnd, CrateOrder, CrateProgress } from './order.ts';

/** Who is told what becomes of crates, whichever process makes them. */
export interface QueueListener {
  started(id: string): void;
  moved(id: string, progress: CrateProgress): void;
  ended(id: string, end: CrateEnd): void;
  /** The queue was away and is back: it may have lost what it held. */
  returned(): void;
}

/**
 * Where crates wait to be made, and who makes them. Where the queue does not answer, its methods throw a Problem `queue_away`
 * within two seconds.
 */
export interface CrateQueue {
  /** Whether it answers at this moment. */
  readonly isThere: boolean;
  /** From now on the listener is told, and work is taken up. */
  begin(listener: QueueListener): Promise<void>;
  /** What it knows of a crate from before; null where it knows nothing. */
  known(id: string): Promise<'waiting' | 'working' | CrateEnd | null>;
  /** Puts a crate in the queue; the least place is served first. */
  add(order: CrateOrder, place: number): Promise<void>;
  /** Gives a waiting crate another place. */
  place(id: string, place: number): Promise<void>;
  /** Takes a waiting crate out, or interrupts one that is being made, and tells the listener. */
  stop(id: string): Promise<void>;
  close(): Promise<void>;
}

/** What is asked of a queue that does not answer. */
export const queueAway = () =>
  new Problem(
    'queue_away',
    'The shared queue of crates does not answer.',
    'See that its Redis runs; crates that wait start when it is back.',
  );
