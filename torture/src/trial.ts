/** What a trial did, and what broke. */
export interface Tally {
  /** What was tried, in words. */
  trial: string;
  tried: number;
  held: number;
  /** One line for each that did not hold. */
  failures: string[];
  /** Measured beside it: counts, memory, times. */
  figures: Record<string, string | number>;
}

export interface TrialOptions {
  /** Where the random numbers begin: the same seed tries the same. */
  seed: number;
  /** How many are tried. */
  count: number;
  /** Folder for everything the trial writes; empty at the start. */
  folder: string;
}

export type Trial = (options: TrialOptions) => Promise<Tally>;

/** Counts what is tried in a trial. */
export class Score {
  readonly #trial: string;
  #tried = 0;
  readonly failures: string[] = [];
  readonly figures: Tally['figures'] = {};

  constructor(trial: string) {
    this.#trial = trial;
  }

  /** Notes one try: what broke in it, if anything did. */
  note(...broken: string[]): void {
    this.#tried++;
    if (broken.length > 0) this.failures.push(broken.join('; '));
  }

  count(figure: string, by = 1): void {
    this.figures[figure] = Number(this.figures[figure] ?? 0) + by;
  }

  tally(): Tally {
    const { failures, figures } = this;
    return {
      trial: this.#trial,
      tried: this.#tried,
      held: this.#tried - failures.length,
      failures,
      figures,
    };
  }
}

/** Random numbers from a seed (mulberry32, Tommy Ettinger 2017). */
export class Random {
  #state: number;

  constructor(seed: number) {
    this.#state = seed >>> 0;
  }

  /** From 0 up to 1. */
  next(): number {
    this.#state = (this.#state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.#state ^ (this.#state >>> 15), 1 | this.#state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  }

  /** A whole number from 0 up to `below`. */
  below(below: number): number {
    return Math.floor(this.next() * below);
  }

  pick<T>(from: readonly T[]): T {
    return from[this.below(from.length)];
  }
}

export const wait = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));
