import { type LightDirection, type PictureRef, type Recipe, withShots } from '@zesty-tile/core';
import { type Photo, photograph } from './photograph.ts';
import { changedRecipe } from './recipes.ts';
import { gardenWall } from './surfaces/garden-wall.ts';
import { ripples } from './surfaces/ripples.ts';

/** When the ripples were shot: where the sun stood, and how strong it was. */
export const RIPPLE_SHOTS: readonly (LightDirection & { hour: string; sun: number })[] = [
  { hour: '7h', azimuth: 84, height: 32, sun: 0.72 },
  { hour: '10h', azimuth: 138, height: 55, sun: 0.92 },
  { hour: '15h', azimuth: 232, height: 50, sun: 0.9 },
  { hour: '18h', azimuth: 282, height: 28, sun: 0.66 },
];

const WIDTH = 1440;
const HEIGHT = 1080;
const NO_FLAW = (): [number, number, number] => [0, 0, 0];

/** Pictures beside the six surfaces of `sources.ts`: several shots of one surface, and a wall with light joints. */
export const EXTRA: Record<string, () => Photo> = {
  wall: () => {
    const scene = gardenWall(WIDTH, HEIGHT, 1000 / WIDTH, { turnDegrees: 0, bow: 0.004 });
    return photograph(scene, {
      sunDegrees: 320,
      sunHeightDegrees: 58,
      sun: 0.45,
      sky: 0.55,
      unevenLog: (x, y) => {
        const light = 0.1 * x - 0.12 * y - 0.06 * (x * x + y * y);
        return [light, light, light];
      },
      exposure: 1.1,
      noise: 0.006,
      seed: 31,
    });
  },
  ...Object.fromEntries(
    RIPPLE_SHOTS.map(({ hour, azimuth, height, sun }, k) => [
      `ripples-${hour}`,
      () =>
        photograph(ripples(WIDTH, HEIGHT, 1400 / WIDTH, { turnDegrees: 0, bow: 0 }), {
          sunDegrees: azimuth,
          sunHeightDegrees: height,
          sun: sun * Math.sin((height * Math.PI) / 180),
          sky: 0.09,
          unevenLog: NO_FLAW,
          exposure: 1,
          noise: 0.004,
          seed: 41 + k,
        }),
    ]),
  ),
};
export const EXTRA_IDS = Object.keys(EXTRA);

/** A tile of these pictures: the first is its photo. */
interface ExtraTile {
  name: string;
  tags: string[];
  ids: readonly string[];
  recipe(more: readonly PictureRef[]): Recipe;
}

export const EXTRA_TILES: readonly ExtraTile[] = [
  {
    name: 'Garden wall',
    tags: ['wall', 'clay'],
    ids: ['wall'],
    recipe: () =>
      changedRecipe({
        // Four bricks across, ten courses up.
        square: { share: 0.8, edgeMetres: 0.6 },
        gauge: { line: 'fired-clay-red' },
        relief: { depthMm: 2, polarity: 'dark', joints: 'light', occlusionMm: 30, cavityMm: 8 },
        finish: { line: 'fired-clay-red' },
      }),
  },
  {
    name: 'Salt-pan ripples, four hours',
    tags: ['ground'],
    ids: RIPPLE_SHOTS.map(({ hour }) => `ripples-${hour}`),
    recipe: (more) =>
      withShots(
        changedRecipe({
          square: { share: 0.65, edgeMetres: 0.683 },
          join: { method: 'meet', overlap: 0.25 },
          relief: { depthMm: 18, occlusionMm: 40 },
        }),
        more,
        RIPPLE_SHOTS.map(({ azimuth, height }) => ({ azimuth, height })),
      ),
  },
];
