import { availableParallelism } from 'node:os';
import { fileURLToPath, pathToFileURL } from 'node:url';
import type { MessagePort } from 'node:worker_threads';
import { builtEntry, isBuilt } from '@zesty-tile/codecs/built';
import { Problem } from '@zesty-tile/core';
import { Piscina } from 'piscina';
import { Budget } from '../budget.ts';
import { crateBytes, crateSeconds, decodeBytes, SECONDS } from './limits.ts';
import type {
  ContentResult,
  ContentTask,
  CrateResult,
  CrateTask,
  FactsResult,
  FactsTask,
  LookResult,
  LookTask,
  MapsResult,
  MapsTask,
  PingTask,
  PixelsResult,
  PixelsTask,
  ScreenResult,
  ScreenTask,
  SetResult,
  SetTask,
  SurroundingsResult,
  SurroundingsTask,
  Task,
  WorkerProblem,
} from './tasks.ts';
import { MemoryWatch } from './watch.ts';

const PACKAGE = fileURLToPath(new URL('../..', import.meta.url));

/** The threads' code: the built file starts sooner; the sources are run wherever they are newer. */
const CODE = isBuilt(PACKAGE)
  ? { filename: pathToFileURL(builtEntry(PACKAGE)).href, execArgv: [] }
  : { filename: new URL('./worker.ts', import.meta.url).href, execArgv: ['--import', 'tsx'] };

/** Memory that pictures being decoded may take together, in bytes. */
const DECODING_BYTES = 2.2 * 2 ** 30;
/** How long a thread may take to answer when it has nothing else to do, in ms. */
const ANSWER_MS = 4000;

const threads = (minThreads: number, maxThreads: number) =>
  new Piscina({
    ...CODE,
    minThreads,
    maxThreads,
    idleTimeout: 60_000,
    // A thread that waits for work must still run its timers: they drop what it keeps.
    atomics: 'disabled',
    resourceLimits: { maxOldGenerationSizeMb: 2048 },
  });

interface Lane {
  threads: Piscina;
  budget: Budget;
}

interface Limits {
  /** The most the task may take once it runs, in seconds. */
  seconds: number;
  /** Estimate of the memory it needs, in bytes. */
  bytes: number;
}

interface RunOptions extends Limits {
  signal?: AbortSignal;
  transferList?: MessagePort[];
}

const tooSlow = (seconds: number) =>
  new Problem(
    'too_slow',
    `The work took longer than ${seconds} s and was stopped.`,
    'Use a smaller picture or size, or open the picture in another program, save it again, and try that copy.',
  );

const tooLargeForMemory = () =>
  new Problem(
    'too_much_memory',
    'The work needed more memory than it may take and was stopped.',
    'Use a smaller picture or size, or open the picture in another program, save it again, and try that copy.',
  );

export interface PoolHealth {
  /** False where a free thread does not do the least work in time. Busy threads have their limits. */
  answers: boolean;
  running: number;
  waiting: number;
}

/** Worker threads for everything that takes long, so that the server always answers. Each task has its limits. */
export class Pool {
  readonly #quick: Lane;
  readonly #crates: Lane;
  readonly #watch = new MemoryWatch();
  #running = 0;

  readonly #seconds: typeof SECONDS;

  /** `crateThreads` make crates, apart from what someone waits for; `seconds` limits the tasks. */
  constructor(crateThreads: number, seconds = SECONDS) {
    this.#seconds = seconds;
    const count = Math.max(2, availableParallelism());
    this.#quick = { threads: threads(1, count), budget: new Budget(DECODING_BYTES, { holders: count }) };
    const crates = Math.max(1, crateThreads);
    this.#crates = {
      threads: threads(0, crates),
      budget: new Budget(Number.POSITIVE_INFINITY, { holders: crates }),
    };
  }

  /**
   * Runs a task in a thread of its own.
   * @throws Problem of the task; `too_slow` or `too_much_memory` where it went past a limit and its thread was ended.
   */
  async #run<T extends object>(
    lane: Lane,
    task: Task,
    { seconds, bytes, signal, transferList }: RunOptions,
  ): Promise<T> {
    const release = await lane.budget.take(bytes, signal);
    const limit = new AbortController();
    const timer = setTimeout(() => limit.abort(tooSlow(seconds)), 1000 * seconds);
    const watched = { bytes, stop: () => limit.abort(tooLargeForMemory()) };
    this.#watch.add(watched);
    this.#running++;
    try {
      const result: T | WorkerProblem = await lane.threads.run(task, {
        signal: signal ? AbortSignal.any([signal, limit.signal]) : limit.signal,
        transferList,
      });
      if (!('problem' in result)) return result;
      const { code, message, hint, field } = result.problem;
      throw new Problem(code, message, hint, field);
    } catch (error) {
      if (limit.signal.aborted) throw limit.signal.reason;
      if ((error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY') throw tooLargeForMemory();
      throw error;
    } finally {
      clearTimeout(timer);
      this.#watch.remove(watched);
      this.#running--;
      release();
    }
  }

  #quickly<T extends object>(task: Task, limits: Limits): Promise<T> {
    return this.#run(this.#quick, task, limits);
  }

  /** What a file is, from its header alone. */
  facts(task: Omit<FactsTask, 'kind'>): Promise<FactsResult> {
    return this.#quickly({ kind: 'facts', ...task }, { seconds: this.#seconds.facts, bytes: 2 * task.bytes });
  }

  /** Whether a file can stand as surroundings of the lit view, decoded once. */
  surroundings(task: Omit<SurroundingsTask, 'kind'>): Promise<SurroundingsResult> {
    return this.#quickly(
      { kind: 'surroundings', ...task },
      { seconds: this.#seconds.decode, bytes: DECODING_BYTES },
    );
  }

  pixels(task: Omit<PixelsTask, 'kind'>): Promise<PixelsResult> {
    const bytes = decodeBytes(task.source);
    return this.#quickly({ kind: 'pixels', ...task }, { seconds: this.#seconds.decode, bytes });
  }

  content(task: Omit<ContentTask, 'kind'>): Promise<ContentResult> {
    const bytes = decodeBytes(task.source);
    return this.#quickly({ kind: 'content', ...task }, { seconds: this.#seconds.decode, bytes });
  }

  look(task: Omit<LookTask, 'kind'>): Promise<LookResult> {
    const decoding = Math.max(...[task.source, ...task.given].map(decodeBytes));
    return this.#quickly(
      { kind: 'look', ...task },
      { seconds: this.#seconds.look, bytes: decoding + 2 ** 28 },
    );
  }

  /** The finished maps of a tile, encoded. */
  maps(task: Omit<MapsTask, 'kind'>): Promise<MapsResult> {
    const decoding = Math.max(...[task.source, ...task.given].map(decodeBytes));
    return this.#quickly(
      { kind: 'maps', ...task },
      { seconds: this.#seconds.look, bytes: decoding + 2 ** 29 },
    );
  }

  screen(task: Omit<ScreenTask, 'kind'>): Promise<ScreenResult> {
    const bytes = decodeBytes(task.source);
    return this.#quickly({ kind: 'screen', ...task }, { seconds: this.#seconds.decode, bytes });
  }

  /** The maps in the files of a crate, as pictures of their own. */
  set(task: Omit<SetTask, 'kind'>): Promise<SetResult> {
    return this.#quickly({ kind: 'set', ...task }, { seconds: this.#seconds.look, bytes: DECODING_BYTES });
  }

  /** Aborting ends the worker's thread, wherever it is. */
  crate(task: Omit<CrateTask, 'kind'>, signal: AbortSignal): Promise<CrateResult> {
    const decoding = Math.max(...[task.source, ...task.given].map(decodeBytes));
    const { size } = task.recipe.stations.square;
    return this.#run(
      this.#crates,
      { kind: 'crate', ...task },
      { seconds: crateSeconds(size), bytes: decoding + crateBytes(size), signal, transferList: [task.port] },
    );
  }

  async health(): Promise<PoolHealth> {
    const waiting = this.#quick.budget.waiting + this.#crates.budget.waiting;
    const running = this.#running;
    return { answers: this.#isBusy || (await this.#answers()), running, waiting };
  }

  get #isBusy(): boolean {
    const { threads, budget } = this.#quick;
    return budget.waiting > 0 || (threads.threads.length >= threads.maxThreads && threads.idleThreads === 0);
  }

  async #answers(): Promise<boolean> {
    const late = AbortSignal.timeout(ANSWER_MS);
    const task: PingTask = { kind: 'ping' };
    return this.#quick.threads.run(task, { signal: late }).then(
      () => true,
      () => false,
    );
  }

  async close(): Promise<void> {
    await Promise.all([this.#quick.threads.destroy(), this.#crates.threads.destroy()]);
  }
}
