import { srgbToLinear } from '../../../colour/srgb.ts';
import { KERNELS } from '../../../kernels/kernels.ts';
import { PLANES } from '../../../memory/pool.ts';
import type { Raster } from '../../../raster/raster.ts';
import { type SurfaceChannel, strided } from '../../../surface/surface.ts';
import { inParts, type Steps } from '../../../work/steps.ts';
import type { BlendMode, OfColours, Separable, Triple } from './mode.ts';
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

/** Planes with the step to the next pixel of each. */
type Strided = ReturnType<typeof strided>;

/** Values that are blended at once, so that they stay near. */
const ROW = 4096;
const BLENDED = new Float32Array(ROW);

/** Blends one plane by a mode that needs no other, in place; values beyond 0..1 are held in between. */
function blendPlane(
  below: Float32Array,
  above: Strided,
  cover: Strided,
  mode: Separable,
  from: number,
  to: number,
): void {
  const { plane: share, step: c } = cover;
  for (let start = from; start < to; start += ROW) {
    const end = Math.min(to, start + ROW);
    mode.row(below, above.plane, above.step, BLENDED, start, end);
    for (let i = start; i < end; i++) {
      const value = below[i];
      below[i] = value + share[c * i] * (Math.min(1, Math.max(0, BLENDED[i - start])) - value);
    }
  }
}

/** Blends all planes of a colour by a mode that needs them all, in place. */
function blendWhole(
  below: readonly Float32Array[],
  above: readonly Strided[],
  cover: Strided,
  mode: OfColours,
  from: number,
  to: number,
): void {
  const b: Triple = [0, 0, 0];
  const a: Triple = [0, 0, 0];
  const out: Triple = [0, 0, 0];
  for (let i = from; i < to; i++) {
    const share = cover.plane[cover.step * i];
    for (let c = 0; c < 3; c++) {
      // A single channel is blended as a grey.
      const k = Math.min(c, below.length - 1);
      b[c] = below[k][i];
      a[c] = above[k].plane[above[k].step * i];
    }
    mode.into(b, a, out);
    for (let c = 0; c < below.length; c++) below[c][i] = b[c] + share * (clamp(out[c]) - b[c]);
  }
}

/** Puts sRGB-encoded values back as linear light, where something is covered: the rest stays as it is, to the bit. */
function decodeInto(
  plane: Float32Array,
  encoded: Float32Array,
  cover: Strided,
  from: number,
  to: number,
): void {
  const { plane: share, step } = cover;
  for (let i = from; i < to; i++) if (share[step * i] > 0) plane[i] = decoded(encoded[i]);
}

const encodedStrided = ({ plane, step }: Strided): Strided => ({
  plane: KERNELS.encodeSrgbPlane(plane),
  step,
});

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
  const count = below.width * below.height;
  const share = strided(cover);
  const given = (Array.isArray(above) ? above : above.planes).map(strided);
  const over = isPlain ? given : given.map(encodedStrided);
  const planes = isPlain ? below.planes : below.planes.map((plane) => KERNELS.encodeSrgbPlane(plane));
  yield* inParts(count, (from, to) => {
    if (mode.kind === 'separable') {
      for (let c = 0; c < 3; c++) blendPlane(planes[c], over[c], share, mode, from, to);
    } else blendWhole(planes, over, share, mode, from, to);
    if (isPlain) return;
    for (let c = 0; c < 3; c++) decodeInto(below.planes[c], planes[c], share, from, to);
  });
  if (isPlain) return;
  PLANES.give(...planes, ...over.filter(({ step }) => step === 1).map(({ plane }) => plane));
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
    if (mode.kind === 'separable') blendPlane(out, a, c, mode, from, to);
    else blendWhole([out], [a], c, mode, from, to);
  });
  return isOne ? out[0] : out;
}
