import type { SettingValue } from '../settings/kinds.ts';
import { DOUBTFUL, FINE } from '../stations/join/propose.ts';
import { CROP_OFFERS } from '../stations/square/inquiries.ts';
import type { CropOffer } from '../stations/square/offers/offer.ts';
import { fittingSize } from '../stations/square/sizes.ts';
import { figureOf } from './figures.ts';
import { proposedSettings } from './proposal.ts';
import type { SetupScene, SetupStep } from './scene.ts';

/** The worst figure an offered crop may have as it is. */
const HIDDEN = 1.2;
/** A crop smaller than this share of the photo gives too much away. */
const LEAST_AREA = 0.2;
/** By how much the joined tile must match the photo better than that of the default crop. */
const CLEARLY = 0.05;

const worstOf = ({ seams }: CropOffer) => Math.max(seams.seamX, seams.seamY, seams.blotchX, seams.blotchY);

/** How badly the texture along a plain cut matches the photo. */
async function mismatchWith(scene: SetupScene, framing: Record<string, SettingValue>): Promise<number> {
  const { verdicts } = await scene.evaluate('join', { square: framing }, true);
  return figureOf(verdicts.join, 'unlike');
}

/** A size that the pixels of an offered crop support, never above the present one. */
function sizeOf({ area }: CropOffer, { recipe, source }: SetupScene): number {
  const supported = fittingSize(Math.sqrt(area * source.width * source.height));
  return Math.min(recipe.stations.square.size, supported);
}

/** Whole periods or most alike edges, where a tile of it matches the photo clearly better than one of the default crop. */
export const proposeCrop: SetupStep = async (scene) => {
  const { recipe, source, signal } = scene;
  if (recipe.stations.join.method === 'none') return [];
  const before = await mismatchWith(scene, {});
  if (before < FINE) return [];
  const offers = await scene.engine.answer(CROP_OFFERS, { recipe, source, signal }, null);
  const good = offers.filter((offer) => worstOf(offer) <= HIDDEN && offer.area >= LEAST_AREA);
  const offer = good.find(({ periods }) => periods) ?? good[0];
  if (!offer) return [];
  const { centreX, centreY, share, turnDegrees, corners } = offer.framing;
  const size = sizeOf(offer, scene);
  const framing = { centreX, centreY, share, turnDegrees, corners, size };
  const after = await mismatchWith(scene, framing);
  // Pixels are given away only where that decides whether the join is seen.
  const isWorthIt = size === recipe.stations.square.size || (before > DOUBTFUL && after < DOUBTFUL);
  if (!isWorthIt || after > before - CLEARLY) return [];
  const { periods } = offer;
  return [
    {
      id: 'crop',
      station: 'square',
      title: periods
        ? `Crop of about ${Math.round(periods.cells)} whole periods`
        : 'Crop with matching edges',
      reason: `Mismatch along the cut falls from ${before.toFixed(2)} to ${after.toFixed(2)}.${size < recipe.stations.square.size ? ` The crop supports ${size} px.` : ''}`,
      settings: proposedSettings(recipe, 'square', framing),
    },
  ];
};
