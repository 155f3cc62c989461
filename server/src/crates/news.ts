import { loggable } from '../problems.ts';

/** Delay before a failed write is tried again, in ms. */
export const AGAIN_MS = 5000;

/**
 * Records what happens to each crate in the order it happens. A write that fails, on a full disk for example, is tried again
 * until it succeeds.
 */
export class News {
  readonly #turns = new Map<string, Promise<void>>();
  readonly #log: (error: unknown) => void;
  #isClosed = false;

  constructor(log: (error: unknown) => void) {
    this.#log = log;
  }

  isWriting(id: string): boolean {
    return this.#turns.has(id);
  }

  write(id: string, work: () => Promise<void>): void {
    const tryAgain = (error: unknown) => {
      this.#log(loggable(error));
      if (this.#isClosed) return;
      setTimeout(() => this.#isClosed || this.write(id, work), AGAIN_MS).unref();
    };
    const turn = (this.#turns.get(id) ?? Promise.resolve()).then(work).catch(tryAgain);
    this.#turns.set(id, turn);
    void turn.then(() => this.#turns.get(id) === turn && this.#turns.delete(id));
  }

  /** Resolves once every write under way has ended; none is tried again. */
  async close(): Promise<void> {
    this.#isClosed = true;
    await Promise.all(this.#turns.values());
  }
}
