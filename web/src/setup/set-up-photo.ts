import type { Setup } from '@zesty-tile/core';
import * as Comlink from 'comlink';
import { startEngine } from '../engine/engine.ts';
import type { EngineWorker } from '../engine/protocol.ts';

/**
 * Measures a stored photo and proposes its settings, in a worker of its own. Null where the worker crashed: then nothing is
 * proposed. @throws what the signal was aborted with.
 */
export async function setUpPhoto(
  request: Parameters<EngineWorker['setUp']>[0],
  onProgress: (done: number) => void,
  signal?: AbortSignal,
): Promise<Setup | null> {
  let stop = () => {};
  const ended = new Promise<null>((resolve, reject) => {
    stop = () => resolve(null);
    signal?.addEventListener('abort', () => reject(signal.reason));
  });
  const { engine, end } = startEngine(() => stop());
  try {
    return await Promise.race([engine.setUp(request, Comlink.proxy(onProgress)), ended]);
  } finally {
    end();
  }
}
