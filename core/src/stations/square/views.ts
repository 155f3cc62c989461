import type { Raster } from '../../raster/raster.ts';
import type { View } from '../view.ts';
import type { SquareOutput } from './output.ts';

/** Sides of the crop within what Square made. */
export const cropSides = ({ picture, margins }: SquareOutput) => ({
  width: picture.width - margins.left - margins.right,
  height: picture.height - margins.top - margins.bottom,
});

/** The crop of a picture that has Square's margins. */
export function cropOf(square: SquareOutput, raster: Raster): Raster {
  const { width, height } = cropSides(square);
  return raster.cut(square.margins.left, square.margins.top, width, height);
}

export const views = {
  crop: {
    title: 'Crop',
    kind: 'colour',
    before: null,
    raster: ({ square }: { square?: SquareOutput }) => (square ? cropOf(square, square.picture) : null),
  },
} satisfies Record<string, View>;
