import type { CrateEnd, CrateOrder, CrateProgress } from './order.ts';

/** Who is told what becomes of crates, whichever process makes them. */
export interface QueueListener {
  started(id: string): void;
  moved(id: string, progress: CrateProgress): void;
  ended(id: string, end: CrateEnd): void;
}

/** Where crates wait to be made, and who makes them. */
export interface CrateQueue {
  /** From now on the listener is told, and work is taken up. */
  begin(listener: QueueListener): Promise<void>;
  /** What it knows of a crate from before; null where it knows nothing. */
  known(id: string): Promise<'waiting' | 'working' | CrateEnd | null>;
  /** Puts a crate in the queue; the least place is served first. */
  add(order: CrateOrder, place: number): Promise<void>;
  /** Gives a waiting crate another place. */
  place(id: string, place: number): Promise<void>;
  /** Takes a waiting crate out, or breaks off one that is being made; the listener is told. */
  stop(id: string): Promise<void>;
  close(): Promise<void>;
}
