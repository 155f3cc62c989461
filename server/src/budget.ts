import { Problem } from '@zesty-tile/core';

interface Waiting {
  amount: number;
  start(): void;
}

interface BudgetOptions {
  /** The most holders at once, whatever their amounts. */
  holders?: number;
  /** How long a request may wait for its turn, in ms; without a limit where it is left out. */
  patienceMs?: number;
}

/**
 * An amount (bytes of memory, as a rule) shared by everything that is under way. Requests are served in the order they came;
 * one that asks for more than there is in all waits until it is alone.
 */
export class Budget {
  readonly #total: number;
  readonly #holders: number;
  readonly #patienceMs: number | undefined;
  #used = 0;
  #held = 0;
  #waiting: Waiting[] = [];

  constructor(total: number, { holders = Number.POSITIVE_INFINITY, patienceMs }: BudgetOptions = {}) {
    this.#total = total;
    this.#holders = holders;
    this.#patienceMs = patienceMs;
  }

  get waiting(): number {
    return this.#waiting.length;
  }

  /**
   * Resolves once `amount` is free, with the function that gives it back (calling it again does nothing).
   * @throws Problem `busy` where that takes longer than the budget's patience, and the reason of an aborted signal.
   */
  take(amount: number, signal?: AbortSignal): Promise<() => void> {
    const wanted = Math.min(amount, this.#total);
    return new Promise((resolve, reject) => {
      let timer: NodeJS.Timeout | undefined;
      const leave = () => {
        clearTimeout(timer);
        signal?.removeEventListener('abort', abort);
      };
      const waiting: Waiting = {
        amount: wanted,
        start: () => {
          leave();
          this.#used += wanted;
          this.#held++;
          resolve(this.#giveBack(wanted));
        },
      };
      const giveUp = (reason: unknown) => {
        leave();
        this.#waiting = this.#waiting.filter((one) => one !== waiting);
        reject(reason);
        this.#next();
      };
      const abort = () => giveUp(signal?.reason);
      if (signal?.aborted) {
        reject(signal.reason);
        return;
      }
      signal?.addEventListener('abort', abort);
      this.#waiting.push(waiting);
      this.#next();
      if (this.#patienceMs !== undefined && this.#waiting.includes(waiting)) {
        timer = setTimeout(() => giveUp(busy()), this.#patienceMs);
      }
    });
  }

  #giveBack(amount: number): () => void {
    let isBack = false;
    return () => {
      if (isBack) return;
      isBack = true;
      this.#used -= amount;
      this.#held--;
      this.#next();
    };
  }

  #next(): void {
    for (;;) {
      const [first] = this.#waiting;
      if (!first || this.#held >= this.#holders || this.#used + first.amount > this.#total) return;
      this.#waiting.shift();
      first.start();
    }
  }
}

const busy = () =>
  new Problem('busy', 'The server is busy with other requests.', 'Wait a moment and try again.');
