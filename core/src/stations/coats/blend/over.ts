import type { Triple } from '../../../kernels/blend-planes/reference.ts';
import { KERNELS } from '../../../kernels/kernels.ts';
import type { Raster } from '../../../raster/raster.ts';
import { partOf, type SurfaceChannel, strided } from '../../../surface/surface.ts';
import { inParts, type Steps } from '../../../work/steps.ts';
import type { BlendMode } from './mode.ts';
import { normal } from './normal.ts';

/** Colours that lie above: one for the whole tile, or a picture; linear RGB. */
export type Above = Triple | Raster;

/**
 * Blends a colour into the planes of a picture, in place: linear RGB 0..1. `cover` is how much of each pixel is covered,
 * 0..1. Modes are applied to sRGB-encoded values, or to linear light where `isLinear`; normal blending is always in linear
 * light, as paint that covers a share of a surface reflects that share of the light.
 */
export function* blendingColour(
  below: Raster,
  above: Above,
  cover: SurfaceChannel,
  mode: BlendMode,
  isLinear: boolean,
): Steps<void> {
  const isEncoded = !isLinear && mode !== normal;
  const share = strided(cover);
  const over = (Array.isArray(above) ? above : above.planes).map(strided);
  yield* inParts(below.width * below.height, (from, to) => {
    KERNELS.blendPlanes(
      below.planes.map((plane) => plane.subarray(from, to)),
      over.map((one) => partOf(one, from, to)),
      partOf(share, from, to),
      mode,
      isEncoded,
    );
  });
}

/**
 * Blends values 0..1 of one channel (roughness, metallic, opacity) by a mode, as they are. What is one value for the whole
 * tile stays one; a plane below is written over.
 */
export function* blendingChannel(
  below: SurfaceChannel,
  above: SurfaceChannel,
  cover: SurfaceChannel,
  mode: BlendMode,
  count: number,
): Steps<SurfaceChannel> {
  const [b, a, c] = [below, above, cover].map(strided);
  const isOne = b.step + a.step + c.step === 0;
  const out = isOne ? new Float32Array(1) : typeof below === 'number' ? new Float32Array(count) : below;
  if (b.step === 0) out.fill(b.plane[0]);
  yield* inParts(out.length, (from, to) => {
    KERNELS.blendPlanes([out.subarray(from, to)], [partOf(a, from, to)], partOf(c, from, to), mode, false);
  });
  return isOne ? out[0] : out;
}
