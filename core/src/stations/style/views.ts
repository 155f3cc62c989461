import { KERNELS } from '../../kernels/kernels.ts';
import { Raster } from '../../raster/raster.ts';
import type { View } from '../view.ts';
import type { StyleOutput } from './output.ts';

interface Outputs {
  style?: StyleOutput;
}

/** The simplified picture, made when it is looked at. */
function simplifiedIn({ simplified, picture }: StyleOutput): Raster | null {
  if (!simplified) return null;
  const out = Raster.filled(picture.width, picture.height, 3);
  KERNELS.oklabToRgb(simplified, out.planes);
  return out;
}

export const views = {
  styled: {
    title: 'Painted',
    kind: 'colour',
    before: 'joined',
    raster: ({ style }: Outputs) => (style ? (style.painted ?? style.picture) : null),
  },
  simplified: {
    title: 'Simplified',
    kind: 'colour',
    before: 'joined',
    raster: ({ style }: Outputs) => (style ? (simplifiedIn(style) ?? style.picture) : null),
  },
} satisfies Record<string, View>;
