import { defaultsOf } from '../settings/kinds.ts';
import { SOFT } from '../stations/source/fitness.ts';
import { SIZES } from '../stations/square/sizes.ts';
import { square } from '../stations/square/station.ts';
import { proposedSettings } from './proposal.ts';
import type { SetupStep } from './scene.ts';

/** An edge of this length was not chosen by anyone. */
const UNKNOWN_METRES = defaultsOf(square.settings).edgeMetres;

/** The length of the edge, which nothing in a photo tells: asked for where it is still the default. */
export const proposeEdge: SetupStep = async ({ recipe }) =>
  recipe.stations.square.edgeMetres === UNKNOWN_METRES
    ? [
        {
          id: 'edge',
          station: 'square',
          title: `Edge ${UNKNOWN_METRES} m`,
          reason:
            'Nothing in the photo tells how large it is. How long is the edge of the tile in the world? Depth, occlusion and texel density follow from it.',
          settings: [],
          isGuess: true,
        },
      ]
    : [];

/** The largest power of two the photo supports: anything larger would only be upsampled. Half of it for a soft photo. */
export const proposeSize: SetupStep = async (scene) => {
  const { shortEdge, fittingSize, sharpness } = await scene.fitness();
  const isSoft = sharpness < SOFT && 2 * fittingSize > shortEdge;
  const size = isSoft ? Math.max(SIZES[0], fittingSize / 2) : fittingSize;
  const settings = proposedSettings(scene.recipe, 'square', { size });
  if (settings.length === 0) return [];
  return [
    {
      id: 'size',
      station: 'square',
      title: `Size ${size} px`,
      reason: isSoft
        ? `The photo is soft (sharpness ${sharpness.toFixed(2)}), so its ${shortEdge} px contain no more detail than that.`
        : `The photo’s shorter side has ${shortEdge} px; a larger tile would only be upsampled.`,
      settings,
    },
  ];
};
