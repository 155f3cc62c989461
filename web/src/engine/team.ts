import { ALONE, type Answer, Crew, type Helper, READY, type Team } from '@zesty-tile/core';

/** More than this many do not help a preview. */
const MOST = 8;

function helper(): Helper {
  const worker = new Worker(new URL('./team-helper.ts', import.meta.url), { type: 'module' });
  return {
    ask: (task) => worker.postMessage(task),
    listen(onReady, onAnswer, onEnd) {
      worker.addEventListener('message', ({ data }: MessageEvent<Answer | typeof READY>) =>
        data === READY ? onReady() : onAnswer(data),
      );
      worker.addEventListener('error', onEnd);
    },
  };
}

/** The engine's thread with one helper for each other core; alone where the page may not share memory. */
export function teamHere(): Team {
  if (!globalThis.crossOriginIsolated) return ALONE;
  const cores = Math.min(MOST, navigator.hardwareConcurrency);
  return new Crew(Array.from({ length: cores - 1 }, helper));
}
