import * as Comlink from 'comlink';
import { sending } from './carried.ts';
import type { EngineWorker } from './protocol.ts';

export type Engine = Comlink.Remote<EngineWorker>;

/** Starts the engine in a worker of its own; `onCrash` is told when it dies. */
export function startEngine(onCrash: () => void): { engine: Engine; end(): void } {
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
  worker.addEventListener('error', onCrash);
  return { engine: sending(Comlink.wrap<EngineWorker>(worker)), end: () => worker.terminate() };
}
