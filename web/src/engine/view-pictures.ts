import {
  albedoOf,
  type EvenOutput,
  KERNELS,
  luminance,
  mapRaster,
  Raster,
  type ReliefOutput,
  type SquareOutput,
  type StationOutputs,
  statistics,
} from '@zesty-tile/core';
import { isMap, type ViewName, viewKind } from './views.ts';

/** Sides of the crop within what Square made. */
const cropSides = ({ picture, margins }: SquareOutput) => ({
  width: picture.width - margins.left - margins.right,
  height: picture.height - margins.top - margins.bottom,
});

/** The crop of a picture as Square made it. */
function cropOf(square: SquareOutput, raster: Raster): Raster {
  const { width, height } = cropSides(square);
  return raster.cut(square.margins.left, square.margins.top, width, height);
}

const planeOf = ({ normal }: ReliefOutput, plane: Float32Array) =>
  new Raster(normal.width, normal.height, [plane]);

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

/** Spreads of a band between black and white. */
const BAND_REACH = 6;

/** One band of detail alone: grey where it has nothing, over so many of its spreads. */
export async function bandRaster({ normal, bands }: ReliefOutput, level: number): Promise<Raster> {
  const band = (await bands())[level];
  const { deviation } = statistics(band);
  const scale = deviation > 0 ? 1 / (BAND_REACH * deviation) : 0;
  const plane = band.map((value) => Math.min(1, Math.max(0, 0.5 + scale * value)));
  return new Raster(normal.width, normal.height, [plane]);
}

/** A view's values as they stand in the program. Null while they are not made, or where there are none. */
export function viewRaster(outputs: Partial<StationOutputs>, view: ViewName): Raster | null {
  const { source, square, even, join, gauge, relief, finish } = outputs;
  switch (view) {
    case 'photo':
      return source?.picture ?? null;
    case 'crop':
      return square ? cropOf(square, square.picture) : null;
    case 'evened':
      return square && even ? cropOf(square, even.picture) : null;
    case 'light':
      return square && even ? lightTaken(square, even) : null;
    case 'left':
      return square && even ? leftAlone(square, even) : null;
    case 'joined':
      return join?.picture ?? null;
    case 'albedo':
      return gauge ? (finish?.isTruth ? albedoOf({ gauge, finish }) : gauge.albedo) : null;
    case 'height':
      return relief ? planeOf(relief, relief.height) : null;
    case 'normal':
      return relief?.normal ?? null;
    case 'cavity':
      return relief ? planeOf(relief, relief.cavity) : null;
    case 'roughness':
      return relief && finish ? planeOf(relief, finish.roughness) : null;
    default:
      return join && gauge && relief && finish && isMap(view)
        ? mapRaster({ join, gauge, relief, finish }, view)
        : null;
  }
}

/** Interleaved RGBA of a raster as it is shown; colour within one code of what a file would hold. */
export function rgbaOf(raster: Raster, view: ViewName): Uint8ClampedArray<ArrayBuffer> {
  if (view === 'light') return lightRgba(raster.planes[0]);
  const kind = viewKind(view);
  const as = kind === 'normal' ? { gain: 0.5, base: 0.5 } : { gain: 1, base: 0 };
  return KERNELS.screenCodes(raster.planes, kind === 'colour' ? 'colour' : as);
}

/** Stops at which the false colour is full. */
const FULL_STOPS = 1;

/** Light taken out in false colour: grey none, orange where there was more of it, blue where less. */
function lightRgba(stops: Float32Array): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(4 * stops.length);
  for (let i = 0, at = 0; i < stops.length; i++, at += 4) {
    const t = Math.max(-1, Math.min(1, stops[i] / FULL_STOPS));
    out[at] = 128 + (t > 0 ? 122 : 96) * t;
    out[at + 1] = 128 + (t > 0 ? 12 : 28) * t;
    out[at + 2] = 128 - (t > 0 ? 108 : 122) * t;
    out[at + 3] = 255;
  }
  return out;
}
