import type { Recipe, Setup, SourceRef } from '@zesty-tile/core';
import * as Comlink from 'comlink';
import { startEngine } from '../engine/engine.ts';

/**
 * Measures a stored photo and proposes its settings, in a worker of its own. Null where the worker crashed: then nothing is
 * proposed. @throws what the signal was aborted with.
 */
export async function setUpPhoto(
  recipe: Recipe,
  source: SourceRef,
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
    return await Promise.race([engine.setUp({ recipe, source }, Comlink.proxy(onProgress)), ended]);
  } finally {
    end();
  }
}
