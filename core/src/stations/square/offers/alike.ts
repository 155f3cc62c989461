import { MIRROR } from '../../../raster/edges.ts';
import type { Raster } from '../../../raster/raster.ts';
import { sampleBilinear } from '../../../sampling/sample.ts';
import { aspectOf, type Shape } from '../../../tile/shape.ts';
import { cropMapper, shareOutside } from '../geometry.ts';
import type { Framing } from './offer.ts';

const SHARES = [0.98, 0.9, 0.82, 0.74, 0.66, 0.58, 0.5];
/** Places tried on each axis for each size. */
const PLACES = 15;
/** Samples along an edge. */
const ALONG = 96;
/** A piece of half the edge must be this much more alike at its edges to be taken instead. */
const COST_OF_SIZE = 0.35;
const MOST = 8;
/** Pieces nearer than this share of their edge, and as large, show the same. */
const APART = 0.12;

/** Mean difference of opposite edges of a piece, in the picture's own values. */
function unlikeEdges(picture: Raster, framing: Framing & { shape: Shape }): number {
  const { width, height, planes } = picture;
  const { at } = cropMapper(width, height, framing);
  let sum = 0;
  for (const plane of planes) {
    const value = (u: number, v: number) => {
      const [x, y] = at(u, v);
      return sampleBilinear(plane, width, height, x - 0.5, y - 0.5, MIRROR);
    };
    for (let k = 0; k < ALONG; k++) {
      const t = (k + 0.5) / ALONG;
      sum += Math.abs(value(0, t) - value(1, t)) + Math.abs(value(t, 0) - value(t, 1));
    }
  }
  return sum / (2 * ALONG * planes.length);
}

/**
 * Upright pieces, turned as the crop is, whose opposite edges are most alike: large ones first where edges are as good.
 * `picture` is the evened photo, small and soft, in square roots of light.
 */
export function alikePieces(picture: Raster, turnDegrees: number, shape: Shape): Framing[] {
  const { width, height } = picture;
  const found: { framing: Framing; cost: number }[] = [];
  for (const share of SHARES) {
    const across = share * Math.min(width, height * aspectOf(shape));
    const [halfX, halfY] = [across / 2, across / 2 / aspectOf(shape)];
    for (let j = 0; j < PLACES; j++) {
      for (let i = 0; i < PLACES; i++) {
        const framing: Framing = {
          centreX: (halfX + ((width - 2 * halfX) * i) / (PLACES - 1)) / width,
          centreY: (halfY + ((height - 2 * halfY) * j) / (PLACES - 1)) / height,
          share,
          turnDegrees,
          corners: null,
          bend: null,
        };
        if (turnDegrees !== 0 && shareOutside(width, height, { ...framing, shape }) > 0) continue;
        found.push({ framing, cost: unlikeEdges(picture, { ...framing, shape }) });
      }
    }
  }
  const typical = found.reduce((sum, { cost }) => sum + cost, 0) / Math.max(1, found.length);
  const costOf = ({ framing, cost }: (typeof found)[0]) =>
    cost / Math.max(1e-6, typical) + COST_OF_SIZE * Math.log2(1 / framing.share);
  found.sort((p, q) => costOf(p) - costOf(q));
  const chosen: Framing[] = [];
  for (const { framing } of found) {
    const near = chosen.some(
      (other) =>
        Math.abs(Math.log(other.share / framing.share)) < 0.15 &&
        Math.hypot((other.centreX - framing.centreX) * width, (other.centreY - framing.centreY) * height) <
          APART * framing.share * Math.min(width, height),
    );
    if (near) continue;
    chosen.push(framing);
    if (chosen.length === MOST) break;
  }
  return chosen.map((framing) => ({
    ...framing,
    centreX: Math.round(1e4 * framing.centreX) / 1e4,
    centreY: Math.round(1e4 * framing.centreY) / 1e4,
  }));
}
