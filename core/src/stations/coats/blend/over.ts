import type { Triple } from '../../../kernels/blend-planes/reference.ts';
import { KERNELS } from '../../../kernels/kernels.ts';
import { PLANES } from '../../../memory/pool.ts';
import type { Raster } from '../../../raster/raster.ts';
import { partOf, type SurfaceChannel, strided } from '../../../surface/surface.ts';
import { inParts, type Steps } from '../../../work/steps.ts';
import type { BlendMode } from './mode.ts';
import { normal } from './normal.ts';

/** Values 0..1 whose colours are looked up in a table for each channel when they are wanted, so that no picture of them is held. */
export interface Ramped {
  values: Float32Array;
  tables: readonly Float32Array[];
}

/** Colours that lie above: one for the whole tile, a picture, or a ramp; linear RGB. */
export type Above = Triple | Raster | Ramped;

/** A part of the colours above, one value a channel where it is one for all, for as long as they are worked with. */
function withPart(above: Above, from: number, to: number, work: (over: Float32Array[]) => void): void {
  if ('tables' in above) {
    const found = KERNELS.lookUp(above.values.subarray(from, to), above.tables);
    work(found);
    PLANES.give(...found);
    return;
  }
  const whole = (Array.isArray(above) ? above : above.planes).map(strided);
  work(whole.map((one) => partOf(one, from, to)));
}

/** A plane for each channel of the colours above, for as many pixels as the tile has. */
export function* colourPlanes(above: Above, count: number): Steps<Float32Array[]> {
  const planes = [0, 1, 2].map(() => new Float32Array(count));
  yield* inParts(count, (from, to) =>
    withPart(above, from, to, (over) => {
      for (const [c, part] of over.entries()) {
        if (part.length === 1) planes[c].fill(part[0], from, to);
        else planes[c].set(part, from);
      }
    }),
  );
  return planes;
}

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
  yield* inParts(below.width * below.height, (from, to) => {
    const planes = below.planes.map((plane) => plane.subarray(from, to));
    withPart(above, from, to, (over) => {
      KERNELS.blendPlanes(planes, over, partOf(share, from, to), mode, isEncoded);
    });
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
