import { luminance } from '../../planes/luminance.ts';
import { Raster } from '../../raster/raster.ts';
import type { SquareOutput } from '../square/output.ts';
import { cropOf, cropSides } from '../square/views.ts';
import type { View } from '../view.ts';
import type { EvenOutput } from './output.ts';

interface Outputs {
  square?: SquareOutput;
  even?: EvenOutput;
}

/** Stops of light that Even took out of each pixel: above 0 where the photo was lighter than the rest. */
function lightTaken(square: SquareOutput, even: EvenOutput): Raster {
  const crop = (raster: Raster) => luminance(cropOf(square, raster));
  const after = crop(even.picture);
  const stops = crop(square.picture).map((v, i) => Math.log2((v + 1e-6) / (after[i] + 1e-6)));
  const { width, height } = cropSides(square);
  return new Raster(width, height, [stops]);
}

/** What Even left as it was: white where all of it. */
function leftAlone(square: SquareOutput, { left }: EvenOutput): Raster {
  const { width, height } = cropSides(square);
  if (!left) return Raster.filled(width, height, 1);
  return cropOf(square, new Raster(square.picture.width, square.picture.height, [left]));
}

export const views = {
  evened: {
    title: 'Evened',
    kind: 'colour',
    before: 'crop',
    raster: ({ square, even }: Outputs) => (square && even ? cropOf(square, even.picture) : null),
  },
  light: {
    title: 'Light taken out',
    kind: 'light',
    before: null,
    raster: ({ square, even }: Outputs) => (square && even ? lightTaken(square, even) : null),
  },
  left: {
    title: 'Left alone',
    kind: 'data',
    before: null,
    raster: ({ square, even }: Outputs) => (square && even ? leftAlone(square, even) : null),
  },
} satisfies Record<string, View>;
