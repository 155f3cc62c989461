import { Engine, type EngineHost, type EvaluationRequest, Stopped } from '@zesty-tile/core';

/** So many are stopped, at even shares of the time that the whole takes. */
const TIMES = 40;

/** ms from being told to stop until it has stopped, shortest first, of evaluations stopped all along their way. */
export async function stopTimes(host: EngineHost, request: EvaluationRequest): Promise<number[]> {
  const once = (signal?: AbortSignal) => new Engine(host, 0).evaluate({ ...request, signal });
  const start = performance.now();
  await once();
  const whole = performance.now() - start;
  const found: number[] = [];
  for (let k = 0; k < TIMES; k++) {
    const abort = new AbortController();
    const wanted = performance.now() + (whole * (k + 0.5)) / TIMES;
    setTimeout(() => abort.abort(), wanted - performance.now());
    try {
      await once(abort.signal);
    } catch (error) {
      if (!(error instanceof Stopped)) throw error;
      found.push(performance.now() - wanted);
    }
  }
  return found.sort((a, b) => a - b);
}
