import { availableParallelism } from 'node:os';
import { fileURLToPath, pathToFileURL } from 'node:url';
import type { MessagePort } from 'node:worker_threads';
import { builtEntry, isBuilt } from '@zesty-tile/codecs/built';
import { Problem } from '@zesty-tile/core';
import { Piscina } from 'piscina';
import type {
  CrateResult,
  CrateTask,
  GreenResult,
  GreenTask,
  LookResult,
  LookTask,
  PixelsResult,
  PixelsTask,
  ScreenResult,
  ScreenTask,
  WorkerProblem,
} from './tasks.ts';

const ROOM = fileURLToPath(new URL('../..', import.meta.url));

/** The threads' code: built it is there sooner; from its sources wherever those are newer. */
const CODE = isBuilt(ROOM)
  ? { filename: pathToFileURL(builtEntry(ROOM)).href, execArgv: [] }
  : { filename: new URL('./worker.ts', import.meta.url).href, execArgv: ['--import', 'tsx'] };

const threads = (minThreads: number, maxThreads: number) =>
  new Piscina({
    ...CODE,
    minThreads,
    maxThreads,
    idleTimeout: 60_000,
  });

/** Worker threads for everything that takes long, so that the server always answers. */
export class Pool {
  #quick = threads(1, Math.max(2, availableParallelism()));
  #crates: Piscina;

  /** `crateThreads` make crates, apart from what someone waits for. */
  constructor(crateThreads: number) {
    this.#crates = threads(0, Math.max(1, crateThreads));
  }

  async #run<T extends object>(
    task: object,
    pool = this.#quick,
    options: { signal?: AbortSignal; transferList?: MessagePort[] } = {},
  ): Promise<T> {
    const result: T | WorkerProblem = await pool.run(task, options);
    if (!('problem' in result)) return result;
    const { code, message, hint, field } = result.problem;
    throw new Problem(code, message, hint, field);
  }

  pixels(task: Omit<PixelsTask, 'kind'>): Promise<PixelsResult> {
    return this.#run({ kind: 'pixels', ...task });
  }

  green(task: Omit<GreenTask, 'kind'>): Promise<GreenResult> {
    return this.#run({ kind: 'green', ...task });
  }

  look(task: Omit<LookTask, 'kind'>): Promise<LookResult> {
    return this.#run({ kind: 'look', ...task });
  }

  screen(task: Omit<ScreenTask, 'kind'>): Promise<ScreenResult> {
    return this.#run({ kind: 'screen', ...task });
  }

  /** Aborting ends the worker's thread, wherever it is. */
  crate(task: Omit<CrateTask, 'kind'>, signal: AbortSignal): Promise<CrateResult> {
    return this.#run({ kind: 'crate', ...task }, this.#crates, { signal, transferList: [task.port] });
  }

  async close(): Promise<void> {
    await Promise.all([this.#quick.destroy(), this.#crates.destroy()]);
  }
}
