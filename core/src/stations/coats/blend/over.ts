import { srgbToLinear } from '../../../colour/srgb.ts';
import { KERNELS } from '../../../kernels/kernels.ts';
import { PLANES } from '../../../memory/pool.ts';
import type { Raster } from '../../../raster/raster.ts';
import { channelAt, type SurfaceChannel } from '../../../surface/surface.ts';
import { inParts, type Steps } from '../../../work/steps.ts';
import type { BlendMode, Triple } from './mode.ts';
import { normal } from './normal.ts';

/** Entries of the table by which sRGB-encoded values become linear; between them it is off by less than 5e-7. */
const ENTRIES = 1024;
const DECODED = Float32Array.from({ length: ENTRIES + 2 }, (_, i) => srgbToLinear(i / ENTRIES));

/** Linear light of an sRGB-encoded value 0..1. */
function decoded(value: number): number {
  const at = value * ENTRIES;
  const k = at | 0;
  return DECODED[k] + (at - k) * (DECODED[k + 1] - DECODED[k]);
}

const clamp = (value: number) => Math.min(1, Math.max(0, value));

/** Colours that lie above: one for the whole tile, or a picture; linear RGB. */
export type Above = Triple | Raster;

/** Values of a colour that lies above, from a pixel on. */
const partsOf = (above: Above, from: number, to: number): readonly (number | Float32Array)[] =>
  Array.isArray(above) ? above : above.planes.map((plane) => plane.subarray(from, to));

const encodedPart = (part: number | Float32Array): number | Float32Array =>
  KERNELS.encodeSrgbPlane(typeof part === 'number' ? Float32Array.of(part) : part);

function blendChannels(
  below: readonly Float32Array[],
  above: readonly (number | Float32Array)[],
  cover: number | Float32Array,
  mode: BlendMode,
): void {
  const b: Triple = [0, 0, 0];
  const a: Triple = [0, 0, 0];
  const out: Triple = [0, 0, 0];
  const { length } = below[0];
  if (mode.kind === 'separable') {
    for (let c = 0; c < 3; c++) {
      const plane = below[c];
      const over = above[c];
      for (let i = 0; i < length; i++) {
        const share = typeof cover === 'number' ? cover : cover[i];
        const value = plane[i];
        const blended = clamp(mode.of(value, typeof over === 'number' ? over : over[i]));
        plane[i] = value + share * (blended - value);
      }
    }
    return;
  }
  for (let i = 0; i < length; i++) {
    const share = typeof cover === 'number' ? cover : cover[i];
    for (let c = 0; c < 3; c++) {
      b[c] = below[c][i];
      a[c] = channelAt(above[c], i);
    }
    mode.into(b, a, out);
    for (let c = 0; c < 3; c++) below[c][i] = b[c] + share * (clamp(out[c]) - b[c]);
  }
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
  const isPlain = isLinear || mode === normal;
  yield* inParts(below.width * below.height, (from, to) => {
    const planes = below.planes.map((plane) => plane.subarray(from, to));
    const parts = partsOf(above, from, to);
    const share = typeof cover === 'number' ? cover : cover.subarray(from, to);
    if (isPlain) {
      blendChannels(planes, parts, share, mode);
      return;
    }
    const encoded = planes.map((plane) => KERNELS.encodeSrgbPlane(plane.map(clamp)));
    const over = parts
      .map(encodedPart)
      .map((part) => ((part as Float32Array).length === 1 ? (part as Float32Array)[0] : part));
    blendChannels(encoded, over, share, mode);
    for (let c = 0; c < 3; c++) {
      const [plane, values] = [planes[c], encoded[c]];
      // What is not covered stays as it is, to the bit.
      for (let i = 0; i < plane.length; i++) if (channelAt(share, i) > 0) plane[i] = decoded(values[i]);
      PLANES.give(values);
    }
  });
}

/** A value of one channel as a mode blends it; whole colours are blended as greys. */
function blendedValue(mode: BlendMode, below: number, above: number): number {
  if (mode.kind === 'separable') return clamp(mode.of(below, above));
  const out: Triple = [0, 0, 0];
  mode.into([below, below, below], [above, above, above], out);
  return clamp(out[0]);
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
  const at = (i: number): number => {
    const value = channelAt(below, i);
    return value + channelAt(cover, i) * (blendedValue(mode, value, channelAt(above, i)) - value);
  };
  if ([below, above, cover].every((one) => typeof one === 'number')) return at(0);
  const out = typeof below === 'number' ? new Float32Array(count) : below;
  yield* inParts(count, (from, to) => {
    for (let i = from; i < to; i++) out[i] = at(i);
  });
  return out;
}
