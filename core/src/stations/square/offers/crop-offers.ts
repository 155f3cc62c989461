import { gaussian } from '../../../filters/gaussian.ts';
import { seen } from '../../../kernels/cut-costs/reference.ts';
import { mapped } from '../../../planes/mapped.ts';
import { MIRROR } from '../../../raster/edges.ts';
import type { Raster } from '../../../raster/raster.ts';
import { resizeArea } from '../../../sampling/resize.ts';
import { resampleField } from '../../../sampling/sample.ts';
import { ALONE } from '../../../team/team.ts';
import { type Shape, sidesOf } from '../../../tile/shape.ts';
import { runSteps } from '../../../work/steps.ts';
import { divideLight } from '../../even/divide.ts';
import { fitLight } from '../../even/fit.ts';
import { pictureSeams } from '../../join/seam.ts';
import { cropMapper, framePlace } from '../geometry.ts';
import { alikePieces } from './alike.ts';
import type { CropOffer } from './offer.ts';
import { periodPieces } from './periods.ts';

/** Shorter side of the photo on which periods are sought, and on which edges are compared with each other. */
const SEARCHED = 512;
const COMPARED = 160;
const SOFT = 1.5;
/** Longer edge of an offer's picture. */
const OFFERED = 256;
/** Pieces of each kind that are offered in the end. */
const OFFERS = 3;
/** Pieces of whole periods whose areas differ by less show the same. */
const ALIKE = 1.25;

const smaller = (raster: Raster, shortEdge: number): Raster => {
  const scale = Math.min(1, shortEdge / Math.min(raster.width, raster.height));
  return resizeArea(raster, Math.round(raster.width * scale), Math.round(raster.height * scale));
};

const NO_MARGINS = { left: 0, right: 0, top: 0, bottom: 0 };

/**
 * Pieces of a photo that come near to tiling by themselves: whole periods of a regular pattern, and upright pieces
 * with opposite edges alike. The figures are those of the piece repeated as it is, its broad light taken
 * out. `photo` is linear; `turnDegrees` is kept for the upright ones.
 */
export async function cropOffers(
  photo: Raster,
  turnDegrees: number,
  shape: Shape,
  checkpoint: (done: number) => Promise<void>,
): Promise<CropOffer[]> {
  const small = smaller(photo, SEARCHED);
  const box = { left: 0, top: 0, width: small.width, height: small.height };
  const { fields } = await runSteps(fitLight(small, box), checkpoint);
  const even = await divideLight(small, box, fields, 1, [], { checkpoint, team: ALONE });
  await checkpoint(0.2);
  const periods = await periodPieces(even, shape, checkpoint);
  await checkpoint(0.5);
  const soft = smaller(even, COMPARED).mapPlanes(seen);
  const compared = soft.mapPlanes((plane) => gaussian(plane, soft.width, soft.height, SOFT, MIRROR));
  const alike = alikePieces(compared, turnDegrees, shape).map((framing) => ({ framing, periods: null }));
  const sides = sidesOf(shape, OFFERED);
  const offers: CropOffer[] = [];
  for (const piece of [...periods, ...alike]) {
    await checkpoint(0.6 + (0.4 * offers.length) / (periods.length + alike.length));
    const crop = { ...piece.framing, shape };
    const place = framePlace(even.width, even.height, crop, sides, NO_MARGINS);
    const picture = (
      await resampleField(even, sides.width, sides.height, place, MIRROR, checkpoint)
    ).mapPlanes((plane) => mapped(plane, (value) => Math.max(0, value)));
    const { across, down } = cropMapper(even.width, even.height, crop);
    offers.push({
      ...piece,
      picture,
      seams: pictureSeams(picture),
      area: (across * down) / (even.width * even.height),
    });
  }
  const worst = ({ seams }: CropOffer) => Math.max(seams.seamX, seams.seamY, seams.blotchX, seams.blotchY);
  // Below 1 nothing shows, and the larger and less distorted piece is the better one.
  const rank = (offer: CropOffer) => {
    const { stretch, shear } = offer.periods ?? { stretch: 1, shear: 0 };
    return Math.max(1, worst(offer)) - offer.area / 2 + 2 * (stretch - 1) + shear / 20;
  };
  offers.sort((p, q) => rank(p) - rank(q));
  const whole: CropOffer[] = [];
  for (const offer of offers) {
    const { periods, area } = offer;
    if (!periods || whole.length === OFFERS) continue;
    if (whole.some((other) => Math.max(area / other.area, other.area / area) < ALIKE)) continue;
    whole.push(offer);
  }
  return [...whole, ...offers.filter(({ periods }) => !periods).slice(0, OFFERS)];
}
