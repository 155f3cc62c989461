import { srgbToLinear } from '../../colour/srgb.ts';
import { encodeSrgbPlane } from '../encode-srgb/reference.ts';

/** A colour while it is blended: three values, by a rule 0..1. */
export type Triple = [number, number, number];

/** A rule of blending that treats each channel alone. */
export interface SeparableRule {
  kind: 'separable';
  /** What the compiled kernel knows it by. */
  code: number;
  /**
   * The blended values of what is below and what lies above it, both 0..1, from one place to another: written to the start of
   * `out`. With a step of 0 one value lies above. What leaves 0..1 is brought to its end by the caller. A loop in every mode:
   * a call for every value costs many times as much.
   */
  row(
    below: Float32Array,
    above: Float32Array,
    step: 0 | 1,
    out: Float32Array,
    from: number,
    to: number,
  ): void;
}

/** A rule of blending of whole colours. */
export interface ColourRule {
  kind: 'colours';
  /** What the compiled kernel knows it by. */
  code: number;
  /** The blended colour of what is below and what lies above it, written to `out`, which may be either. */
  into(below: Readonly<Triple>, above: Readonly<Triple>, out: Triple): void;
}

export type BlendRule = SeparableRule | ColourRule;

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

/** A plane, or one value for all, with the step to the next pixel. */
const strided = (plane: Float32Array, count: number): { plane: Float32Array; step: 0 | 1 } => ({
  plane,
  step: plane.length === 1 && count !== 1 ? 0 : 1,
});
type Strided = ReturnType<typeof strided>;

/** Values that are blended at once, so that they stay near. */
const ROW = 4096;
const BLENDED = new Float32Array(ROW);

function blendPlane(
  below: Float32Array,
  above: Strided,
  { plane: share, step: c }: Strided,
  mode: SeparableRule,
): void {
  for (let start = 0; start < below.length; start += ROW) {
    const end = Math.min(below.length, start + ROW);
    mode.row(below, above.plane, above.step, BLENDED, start, end);
    for (let i = start; i < end; i++) {
      const value = below[i];
      below[i] = value + share[c * i] * (clamp(BLENDED[i - start]) - value);
    }
  }
}

function blendWhole(
  below: readonly Float32Array[],
  above: readonly Strided[],
  cover: Strided,
  mode: ColourRule,
): void {
  const b: Triple = [0, 0, 0];
  const a: Triple = [0, 0, 0];
  const out: Triple = [0, 0, 0];
  for (let i = 0; i < below[0].length; i++) {
    const share = cover.plane[cover.step * i];
    for (let c = 0; c < 3; c++) {
      const k = Math.min(c, below.length - 1);
      b[c] = below[k][i];
      a[c] = above[k].plane[above[k].step * i];
    }
    mode.into(b, a, out);
    for (let c = 0; c < below.length; c++) below[c][i] = b[c] + share * (clamp(out[c]) - b[c]);
  }
}

/**
 * Blends planes in place: one, or three of a colour; what lies above and `cover` (how much of each pixel is covered, 0..1) are
 * as long or have one value for all. Values beyond 0..1 are held in between. A rule of whole colours takes a single plane for
 * a grey. With `isEncoded` linear values are blended as sRGB-encoded ones; where nothing is covered they stay as they are, to
 * the bit.
 */
export function blendPlanes(
  below: readonly Float32Array[],
  above: readonly Float32Array[],
  cover: Float32Array,
  rule: BlendRule,
  isEncoded: boolean,
): void {
  const count = below[0].length;
  const share = strided(cover, count);
  const over = above.map((plane) => strided(isEncoded ? encodeSrgbPlane(plane) : plane, count));
  const planes = isEncoded ? below.map((plane) => encodeSrgbPlane(plane)) : below;
  if (rule.kind === 'separable') {
    for (const [c, plane] of planes.entries()) blendPlane(plane, over[c], share, rule);
  } else blendWhole(planes, over, share, rule);
  if (!isEncoded) return;
  for (const [c, plane] of below.entries()) {
    const encoded = planes[c];
    for (let i = 0; i < count; i++) {
      if (share.plane[share.step * i] > 0) plane[i] = decoded(encoded[i]);
    }
  }
}

export const reference = { blendPlanes };
