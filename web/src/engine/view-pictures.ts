import {
  albedoOf,
  KERNELS,
  mapRaster,
  Raster,
  type ReliefOutput,
  type StationOutputs,
  surfaceOf,
} from '@zesty-tile/core';
import { isMap, stageView, type ViewName, viewKind } from './views.ts';

const planeOf = ({ normal }: ReliefOutput, plane: Float32Array) =>
  new Raster(normal.width, normal.height, [plane]);

/** A map as far as it can be shown before the tile is finished. */
function earlyMap({ gauge, relief }: Partial<StationOutputs>, view: ViewName): Raster | null {
  switch (view) {
    case 'albedo':
      return gauge?.albedo ?? null;
    case 'height':
      return relief ? planeOf(relief, relief.height) : null;
    case 'normal':
      return relief?.normal ?? null;
    case 'cavity':
      return relief ? planeOf(relief, relief.cavity) : null;
    default:
      return null;
  }
}

/**
 * A view's values as the program computes with them. Null while they are not made, or where there are none; a promise where they
 * take long. Maps of a tile that has coats are there with these.
 */
export function viewRaster(
  outputs: Partial<StationOutputs>,
  view: ViewName,
  hasCoats = false,
): Raster | null | Promise<Raster | null> {
  const stage = stageView(view);
  if (stage) return stage.raster(outputs);
  if (!isMap(view)) return null;
  const { style, gauge, relief, finish, coats } = outputs;
  if (coats) return mapRaster(coats, view);
  if (hasCoats) return null;
  if (style && gauge && relief && finish) return mapRaster(surfaceOf({ style, gauge, relief, finish }), view);
  // The tile's colour does not wait for Relief.
  if (view === 'albedo' && gauge && finish)
    return albedoOf({ colour: gauge.albedo, f0: finish.f0, isF0Whole: finish.isTruth });
  return earlyMap(outputs, view);
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

/** Light removed in false colour: grey none, orange where there was more of it, blue where less. */
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
