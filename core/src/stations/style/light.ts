import { blurring } from '../../filters/gaussian.ts';
import { PLANES } from '../../memory/pool.ts';
import type { Edges } from '../../raster/edges.ts';
import { gradient } from '../../raster/gradient.ts';
import type { Sides } from '../../raster/sides.ts';
import { smoothStep } from '../../sampling/smooth-step.ts';
import { findingPercentiles } from '../../statistics/histogram.ts';
import type { Steps } from '../../work/steps.ts';
import type { StyleDecision } from './decision.ts';

/** σ as shares of the shorter edge: what edges and hollows are thinner than, and what shade is wider and narrower than. */
const FINEST = 0.0015;
const THIN = 0.006;
const WIDE = 0.05;
const SLOPE = 0.004;
const RANK = 90;

/** Relief as light is painted by it: what is thin, what is wide, and how steep it is. */
export interface LightRelief {
  thin: Float32Array;
  wide: Float32Array;
  gx: Float32Array;
  gy: Float32Array;
}

/** Parts of a height of any scale that light is painted by. */
export function* lightRelief(
  height: Float32Array,
  { width, height: rows }: Sides,
  edges: Edges,
): Steps<LightRelief> {
  const edge = Math.min(width, rows);
  const blurred = (share: number) => blurring(height, width, rows, share * edge, edges);
  const thin = yield* blurred(FINEST);
  const wide = yield* blurred(THIN);
  const broad = yield* blurred(WIDE);
  for (let i = 0; i < thin.length; i++) {
    thin[i] -= wide[i];
    wide[i] -= broad[i];
  }
  PLANES.give(broad);
  yield;
  const smooth = yield* blurred(SLOPE);
  const { gx, gy } = gradient(smooth, width, rows, 'scharr', edges);
  PLANES.give(smooth);
  // As shares of the edge, so that they are alike at every size.
  for (let i = 0; i < gx.length; i++) {
    gx[i] *= edge;
    gy[i] *= edge;
  }
  return { thin, wide, gx, gy };
}

/** Contrast (OKLab lightness) at and above which a tile takes all of the light; a quiet one would be drowned in it. */
const PLAIN_CONTRAST = 0.03;
const LEAST_STRENGTH = 0.25;

/** How strongly light is painted on a tile with this deviation of lightness, of what is narrower than an eighth of it. */
export const lightStrength = (deviation: number): number =>
  Math.min(1, LEAST_STRENGTH + ((1 - LEAST_STRENGTH) * deviation) / PLAIN_CONTRAST);

/** The usual size of each part of a relief: its 90 % quantile, measured at the working size. */
export function* lightScale({
  thin,
  wide,
  gx,
  gy,
}: LightRelief): Steps<Omit<StyleDecision['light'], 'strength'>> {
  const of = function* (plane: Float32Array) {
    return (yield* findingPercentiles(plane, [RANK]))[0];
  };
  return {
    thin: yield* of(thin.map(Math.abs)),
    wide: yield* of(wide.map(Math.abs)),
    slope: yield* of(gx.map((value, i) => Math.hypot(value, gy[i]))),
  };
}

/** Dials of painted light, 0..1, and where it comes from, clockwise from the top. */
export interface PaintedLight {
  light: number;
  ink: number;
  marks: number;
  degrees: number;
}

/** Lightness of ink (OKLab), and how much of the colour under it is left. */
const INK = 0.14;
const UNDER_INK = 0.25;
const squashed = (value: number) => value / Math.sqrt(1 + value * value);

/**
 * Paints light on OKLab planes, in place: edges that stand out and face the light lighter and warmer, hollows darker, cooler and
 * richer, the light caught on the strokes' ridges; and ink in the deepest hollows. Returns the mean change of lightness by light.
 */
export function* paintingLight(
  [L, a, b]: readonly Float32Array[],
  ridges: Float32Array,
  { thin, wide, gx, gy }: LightRelief,
  scale: StyleDecision['light'],
  { light, ink, marks, degrees }: PaintedLight,
): Steps<number> {
  const turn = (degrees * Math.PI) / 180;
  const [lx, ly] = [Math.sin(turn), -Math.cos(turn)];
  const inverse = (value: number) => (value > 1e-7 ? 1 / value : 0);
  const [ofThin, ofWide, ofSlope] = [inverse(scale.thin), inverse(scale.wide), inverse(scale.slope)];
  const k = 2 * light * scale.strength;
  let changed = 0;
  for (let i = 0; i < L.length; i++) {
    const facing = -(gx[i] * lx + gy[i] * ly) * ofSlope;
    const t = thin[i] * ofThin;
    const rim = smoothStep(0.35, 1.3, t) * (0.55 + 0.45 * squashed(1.5 * facing));
    const hollow = smoothStep(0.3, 1.4, -t);
    const shade = smoothStep(0.1, 1.6, -wide[i] * ofWide);
    const caught = Math.min(1.3, Math.max(0.35, 0.9 + 1.6 * ridges[i] * (0.4 + marks)));
    const own = L[i];
    const up = 0.12 * k * rim * caught * ((1.15 - own) / 0.6);
    const down = (0.13 * hollow + 0.075 * shade) * k * ((0.25 + own) / 0.85);
    const change = up - down + 0.035 * k * squashed(facing);
    L[i] = own + change;
    changed += Math.abs(change);
    const tint = Math.max(-0.14, Math.min(0.14, change));
    const rich = change < 0 ? 1 - 0.9 * tint : 1;
    a[i] = (a[i] + 0.03 * tint) * rich;
    b[i] = (b[i] + (tint > 0 ? 0.16 : 0.13) * tint) * rich;
    if (ink > 0) {
      const drawn = ink * smoothStep(0.35, 1, hollow);
      L[i] += (INK + UNDER_INK * own - L[i]) * drawn;
      a[i] *= 1 - 0.6 * drawn;
      b[i] *= 1 - 0.6 * drawn;
    }
    if ((i & 0x1ffff) === 0x1ffff) yield;
  }
  return changed / L.length;
}
