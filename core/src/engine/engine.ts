import type { StationName } from '../stations/index.ts';
import type { Inquiry } from '../stations/inquiry.ts';
import { Cache } from './cache.ts';
import { type EngineHost, type Evaluation, type EvaluationRequest, WORKING_SIZE } from './evaluation.ts';
import { Walk } from './walk.ts';

/**
 * Walks the stations in order. One engine serves browser worker, server and command line; results are
 * kept by the hash of what they were made from.
 */
export class Engine {
  readonly cache: Cache;
  #host: EngineHost;

  constructor(host: EngineHost, cacheBytes: number) {
    this.#host = host;
    this.cache = new Cache(cacheBytes);
  }

  /** @throws Stopped when cancelled; Problem when the source cannot be read. */
  async evaluate(request: EvaluationRequest): Promise<Evaluation> {
    return new Walk(this.#host, this.cache, request).run();
  }

  /**
   * Answers an inquiry that a station declares, at the working size; `tell` is called with each partial answer.
   * @throws Stopped when cancelled; Problem when the source cannot be read.
   */
  async answer<Asked, Told, Found>(
    inquiry: Inquiry<Asked, Told, Found>,
    request: Omit<EvaluationRequest, 'size' | 'until'>,
    asked: Asked,
    tell: (told: Told) => void = () => {},
  ): Promise<Found> {
    const until = inquiry.station as StationName;
    return new Walk(this.#host, this.cache, { ...request, size: WORKING_SIZE, until }).answer(
      inquiry,
      asked,
      tell,
    );
  }
}
