import type { Raster } from '../raster/raster.ts';
import { resizeArea } from '../sampling/resize.ts';
import { pictureSeams } from '../stations/join/seam.ts';
import type { Shape } from '../tile/shape.ts';
import { proposedSettings } from './proposal.ts';
import type { SetupStep } from './scene.ts';

/** Figures of a picture repeated as it is, above which its edges show. */
const HIDDEN = 1;
const MEASURED = 512;
/** How far a picture's sides may be from the shape of a tile. */
const SLACK = 0.01;

const SHAPE_RATIOS: [Shape, number][] = [
  ['1:1', 1],
  ['2:1', 2],
  ['1:2', 0.5],
];

/** The worst figure of a picture repeated as it is; 1 or less, and no edge shows. */
export function worstEdge(picture: Raster): number {
  const { width, height } = picture;
  const small = resizeArea(picture, Math.min(width, MEASURED), Math.min(height, MEASURED));
  const { seamX, seamY, blotchX, blotchY } = pictureSeams(small);
  return Math.max(seamX, seamY, blotchX, blotchY);
}

/** The shape of tile that has a picture's sides, or null. */
const shapeOf = ({ width, height }: { width: number; height: number }): Shape | null =>
  SHAPE_RATIOS.find(([, ratio]) => Math.abs(width / height / ratio - 1) < SLACK)?.[0] ?? null;

/** A picture that tiles already, with its supplied maps, is left as it is: whole, not joined, its light kept. */
export const proposeTiling: SetupStep = async (scene) => {
  const { picture, given } = (await scene.evaluate('source')).outputs.source!;
  const shape = shapeOf(scene.source);
  if (!shape) return [];
  const maps = Object.values(given).filter((map) => map !== undefined);
  const worst = Math.max(...[picture, ...maps].map(worstEdge));
  if (worst > HIDDEN) return [];
  const { recipe } = scene;
  const figures = `the edges match (${worst.toFixed(2)}, limit ${HIDDEN})`;
  return [
    {
      id: 'tiling',
      station: 'join',
      title: 'Edges left alone',
      reason:
        maps.length > 0
          ? `These maps already tile, ${figures}: leave their edges alone?`
          : `The picture already tiles: ${figures}.`,
      ...(maps.length > 0 ? { isGuess: true } : {}),
      settings: [
        ...proposedSettings(recipe, 'square', { shape, share: 1, centreX: 0.5, centreY: 0.5 }),
        ...proposedSettings(recipe, 'even', { amount: 0 }),
        ...proposedSettings(recipe, 'join', { method: 'none' }),
      ],
    },
  ];
};
