import type { Proposal, Proposed } from '../stations/join/propose.ts';
import type { GraftOffer, RepairSpot } from '../stations/join/repair/offers.ts';
import type { CropOffer } from '../stations/square/offers/offer.ts';
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

  /** @throws Stopped when cancelled; Problem when the source cannot be had. */
  async evaluate(request: EvaluationRequest): Promise<Evaluation> {
    return new Walk(this.#host, this.cache, request).run();
  }

  /**
   * Every way of joining, tried and measured at the working size; `onProposal` is told of each as it is made.
   * @throws Stopped when cancelled; Problem when the source cannot be had.
   */
  async proposals(
    request: Omit<EvaluationRequest, 'size' | 'until'>,
    onProposal: (proposal: Proposal) => void,
  ): Promise<Proposed> {
    const asked = { ...request, size: WORKING_SIZE, until: 'join' as const };
    return new Walk(this.#host, this.cache, asked).propose(onProposal);
  }

  /**
   * Pieces of the photo that come near to tiling by themselves.
   * @throws Stopped when cancelled; Problem when the source cannot be had.
   */
  async cropOffers(request: Omit<EvaluationRequest, 'size' | 'until'>): Promise<CropOffer[]> {
    const asked = { ...request, size: WORKING_SIZE, until: 'source' as const };
    return new Walk(this.#host, this.cache, asked).cropOffers();
  }

  /**
   * Grafts to lie over a place of the joined tile, made at the working size.
   * @throws Stopped when cancelled; Problem when the source cannot be had.
   */
  async graftOffers(
    request: Omit<EvaluationRequest, 'size' | 'until'>,
    spot: RepairSpot,
  ): Promise<GraftOffer[]> {
    const asked = { ...request, size: WORKING_SIZE, until: 'join' as const };
    return new Walk(this.#host, this.cache, asked).graftOffers(spot);
  }
}
