/** How often the memory of the process is looked at while tasks run, in ms. */
const LOOK_MS = 500;
/** Memory beyond what it had at the start that the process may take without any task, in bytes. */
const BASE_BYTES = 1.25 * 2 ** 30;
/** How far the estimates of the tasks may be off. */
const SLACK = 1.5;

export interface WatchedTask {
  /** Estimate of the memory it needs, in bytes. */
  bytes: number;
  /** Ends it for taking too much. */
  stop(): void;
}

/**
 * Watches the memory of the process while tasks run in its threads. Where it grows past what the tasks were estimated to need,
 * the largest of them is stopped: one hostile picture may not take the whole server down.
 */
export class MemoryWatch {
  readonly #tasks = new Set<WatchedTask>();
  readonly #rss: () => number;
  readonly #start: number;
  #timer: NodeJS.Timeout | undefined;
  #isOver = false;

  /** `rss` gives the resident memory of the process in bytes. */
  constructor(rss: () => number = process.memoryUsage.rss) {
    this.#rss = rss;
    this.#start = rss();
  }

  add(task: WatchedTask): void {
    this.#tasks.add(task);
    this.#timer ??= setInterval(() => this.look(), LOOK_MS).unref();
  }

  remove(task: WatchedTask): void {
    this.#tasks.delete(task);
    if (this.#tasks.size > 0) return;
    clearInterval(this.#timer);
    this.#timer = undefined;
    this.#isOver = false;
  }

  /** Compares the memory with the estimates; two looks in a row above them stop the largest task. */
  look(): void {
    const tasks = [...this.#tasks];
    const estimate = tasks.reduce((sum, { bytes }) => sum + bytes, 0);
    const wasOver = this.#isOver;
    this.#isOver = this.#rss() > this.#start + BASE_BYTES + SLACK * estimate;
    if (!wasOver || !this.#isOver) return;
    this.#isOver = false;
    const largest = tasks.sort((a, b) => b.bytes - a.bytes)[0];
    largest?.stop();
  }
}
