import type { SourceRef } from '../pixels/pixels.ts';
import type { Raster } from '../raster/raster.ts';
import { lastYield, yieldNow } from '../work/yield.ts';
import { ALONE, type Team } from './team.ts';

/** Thrown when work is stopped on request. */
export class Stopped extends Error {
  constructor() {
    super('Stopped on request.');
    this.name = 'Stopped';
  }
}

/** What a station's run may ask of the engine while it works. */
export interface WorkContext {
  /**
   * Awaited inside long loops with the share done, 0..1: reports it, yields to other work, and throws
   * `Stopped` when the work has been cancelled.
   */
  checkpoint(done: number): Promise<void>;
  /** A part of the result, kept by what it depends on, so that an unrelated dial does not make it again. */
  part<T>(name: string, dependsOn: unknown, make: () => Promise<T> | T): Promise<T>;
  /** A part that is kept; nothing where there is none. */
  known<T>(name: string, dependsOn: unknown): T | undefined;
  /** Hands over how the result looks on the way to it, made only where somebody looks at it. */
  onTheWay(make: () => Promise<Raster>): Promise<void>;
  /** Threads that may share what takes long. */
  team: Team;
  /** Releases memory that nobody holds any more, where a set is made. */
  collect(): void;
  /** A stored picture as values 0..1 (the fourth plane its alpha), reduced as far as `shortEdge` pixels of its shorter side are left. */
  picture(ref: SourceRef, shortEdge: number, planes: 1 | 3 | 4): Promise<Raster>;
}

/** What work needs that is shared by a team and can be stopped. */
export type Sharing = Pick<WorkContext, 'checkpoint' | 'team'>;

/** Longest time without yielding, in ms. */
const SLICE_MS = 8;

/**
 * A checkpoint that yields when more than a slice of time has passed, and throws `Stopped` on abort. `onStep` is told
 * how long nothing else could run before, in ms.
 */
export function checkpointer(
  signal: AbortSignal | undefined,
  report: (done: number) => void,
  onStep: (ms: number) => void,
): (done: number) => Promise<void> {
  return async (done) => {
    if (signal?.aborted) throw new Stopped();
    const taken = performance.now() - lastYield();
    if (taken < SLICE_MS) return;
    onStep(taken);
    report(done);
    await yieldNow();
    if (signal?.aborted) throw new Stopped();
  };
}

/** A context that keeps nothing and never stops: for tests and single calls. */
export const PLAIN_CONTEXT: WorkContext = {
  team: ALONE,
  checkpoint: async () => {},
  part: async (_name, _dependsOn, make) => make(),
  known: () => undefined,
  onTheWay: async () => {},
  collect: () => {},
  picture: async () => {
    throw new Error('There are no stored pictures here.');
  },
};
