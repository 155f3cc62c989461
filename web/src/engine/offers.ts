import {
  CROP_OFFERS,
  type Engine,
  GRAFT_OFFERS,
  JOIN_PROPOSALS,
  joins,
  NET,
  type Proposal,
  resizeArea,
  Stopped,
  setUp,
} from '@zesty-tile/core';
import type { EngineWorker, OfferedJoin } from './protocol.ts';
import { rgbaOf } from './view-pictures.ts';

/** Longest side of the pictures of ways to join: as large as they are tried. */
const OFFERED = 512;

/** A proposal as the page shows it, with the figures of the joined axes. */
function offerOf(
  { method, blend, made, score, seams }: Proposal,
  on: { x: boolean; y: boolean },
): OfferedJoin {
  const worst = (x: number, y: number) => Math.max(on.x ? x : 0, on.y ? y : 0);
  const scale = OFFERED / Math.max(made.picture.width, made.picture.height);
  const [width, height] = [made.picture.width * scale, made.picture.height * scale].map(Math.round);
  const small = resizeArea(made.picture, width, height);
  return {
    method,
    blend,
    picture: { width, height, rgba: rgbaOf(small, 'joined') },
    score: score.score,
    seam: worst(seams.seamX, seams.seamY),
    blotch: worst(seams.blotchX, seams.blotchY),
    detail: score.detail,
  };
}

type Offers = Pick<
  EngineWorker,
  'proposeJoin' | 'stopProposing' | 'setUp' | 'findNet' | 'offerCrops' | 'offerGrafts'
>;

/** What an engine can be asked to offer: ways to join, pieces that tile, patches. */
export function offersOf(engine: Engine): Offers {
  let proposing: AbortController | null = null;
  return {
    async proposeJoin({ recipe, source }, onOffer) {
      proposing?.abort();
      const abort = new AbortController();
      proposing = abort;
      try {
        const { proposals, best, reason } = await engine.answer(
          JOIN_PROPOSALS,
          { recipe, source, signal: abort.signal },
          null,
          (proposal) => onOffer(offerOf(proposal, joins(recipe.stations.join.axes))),
        );
        return { best: proposals.indexOf(best), reason };
      } catch (error) {
        if (error instanceof Stopped) return null;
        throw error;
      }
    },
    setUp: ({ recipe, source, chosen }, onProgress) =>
      setUp(engine, { recipe, source, chosen: new Set(chosen), onProgress }),
    findNet: (request) => engine.answer(NET, request, null),
    stopProposing() {
      proposing?.abort();
    },
    async offerCrops(request) {
      const offers = await engine.answer(CROP_OFFERS, request, null);
      return offers.map(({ framing, periods, area, picture, seams }) => ({
        framing,
        periods,
        area,
        picture: { width: picture.width, height: picture.height, rgba: rgbaOf(picture, 'crop') },
        seam: Math.max(seams.seamX, seams.seamY),
        blotch: Math.max(seams.blotchX, seams.blotchY),
      }));
    },
    async offerGrafts(request, spot) {
      const offers = await engine.answer(GRAFT_OFFERS, request, spot);
      return offers.map(({ graft, unlike, picture }) => ({
        graft,
        unlike,
        picture: { width: picture.width, height: picture.height, rgba: rgbaOf(picture, 'joined') },
      }));
    },
  };
}
