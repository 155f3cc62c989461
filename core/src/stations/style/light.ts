import { blurPlanes } from '../../filters/blur-planes.ts';
import type { Field } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import type { LightPainting } from '../../kernels/paint-light/reference.ts';
import { mapped } from '../../planes/mapped.ts';
import { type Band, bandParts } from '../../raster/band.ts';
import { gradient } from '../../raster/gradient.ts';
import type { Sides } from '../../raster/sides.ts';
import { findingPercentiles } from '../../statistics/histogram.ts';
import type { Sharing } from '../../team/context.ts';
import { eachBand } from '../../team/in-bands.ts';
import { type GivenOf, task } from '../../team/task.ts';
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

/** What is thin and what is wide of rows, from blurs that are written over, and their slopes as shares of the edge. */
export const lightReliefBand = task(
  'lightReliefBand',
  (
    _checkpoint,
    { thin, wide, gx, gy }: LightRelief,
    [broad, smooth]: Float32Array[],
    field: Field,
    band: Band,
  ): void => {
    const { width, height, edges } = field;
    const first = band.from * width;
    for (let i = first; i < band.to * width; i++) {
      thin[i] -= wide[i];
      wide[i] -= broad[i];
    }
    const slopes = gradient(smooth, width, height, 'scharr', edges, band);
    // As shares of the edge, so that they are alike at every size.
    const edge = Math.min(width, height);
    for (let i = 0; i < slopes.gx.length; i++) {
      gx[first + i] = slopes.gx[i] * edge;
      gy[first + i] = slopes.gy[i] * edge;
    }
  },
);

/** Parts of a height of any scale that light is painted by. */
export async function lightRelief(
  height: Float32Array,
  { width, height: rows, edges }: Field,
  context: Sharing,
): Promise<LightRelief> {
  const field = { width, height: rows, edges };
  const edge = Math.min(width, rows);
  const blurs = [FINEST, THIN, WIDE, SLOPE].map((share) => ({ plane: height, sigma: share * edge }));
  const [thin, wide, broad, smooth] = await blurPlanes(blurs, field, context);
  const empty = () => context.team.take(width * rows);
  const relief = { thin, wide, gx: empty(), gy: empty() };
  await eachBand(lightReliefBand, [relief, [broad, smooth], field], rows, context);
  context.team.give(broad, smooth);
  return relief;
}

/** Contrast (OKLab lightness) at and above which a tile takes all of the light; a quiet one would be drowned in it. */
const PLAIN_CONTRAST = 0.03;
const LEAST_STRENGTH = 0.12;

/** How strongly light is painted on a tile with this deviation of lightness, of what is narrower than an eighth of it. */
export const lightStrength = (deviation: number): number =>
  LEAST_STRENGTH + (1 - LEAST_STRENGTH) * Math.min(1, deviation / PLAIN_CONTRAST) ** 1.5;

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
    thin: yield* of(mapped(thin, Math.abs)),
    wide: yield* of(mapped(wide, Math.abs)),
    slope: yield* of(mapped(gx, (value, i) => Math.sqrt(value * value + gy[i] * gy[i]))),
  };
}

/** Dials of painted light, 0..1, and where it comes from, clockwise from the top. */
export interface PaintedLight {
  light: number;
  ink: number;
  marks: number;
  degrees: number;
}

/** Rows that one member does at once, and those whose changes are added up: the same sums however many share the work. */
const BAND = 128;
const ROWS = 32;

/** What is painted with light: a picture under strokes, how its colours are spread, and what is known of the light. */
export interface Lighting {
  /** L, a, b and the ridges of the strokes. */
  stroked: Float32Array[];
  spread: StyleDecision['spread'];
  relief: LightRelief;
  scale: StyleDecision['light'];
  dials: PaintedLight;
}

/** How the kernel paints light, by the dials and by the usual size of each part of the relief. */
function lightPainting({ spread, scale, dials }: Lighting): LightPainting {
  const turn = (dials.degrees * Math.PI) / 180;
  const inverse = (value: number) => (value > 1e-7 ? 1 / value : 0);
  const ofSlope = inverse(scale.slope);
  return {
    strength: 2 * dials.light * scale.strength,
    ink: dials.ink,
    byRidge: 0.4 + dials.marks,
    ofThin: inverse(scale.thin),
    ofWide: inverse(scale.wide),
    lightX: Math.sin(turn) * ofSlope,
    lightY: -Math.cos(turn) * ofSlope,
    middleA: spread.a,
    middleB: spread.b,
    gain: spread.gain,
  };
}

/** Light painted on rows, into planes that all of a team see. Changes of lightness added up over each `ROWS`. */
export const lightBand = task(
  'lightBand',
  async (
    checkpoint,
    planes: Float32Array[],
    by: LightPainting,
    width: number,
    into: Float32Array[],
    band: Band,
  ): Promise<number[]> => {
    const sums: number[] = [];
    for (const { from, to } of bandParts(band, ROWS)) {
      const rows = (plane: Float32Array) => plane.subarray(from * width, to * width);
      sums.push(KERNELS.paintLight(planes.map(rows), by, into.map(rows)));
      await checkpoint((to - band.from) / (band.to - band.from));
    }
    return sums;
  },
);

/**
 * Light painted on a picture under strokes (see `paintLight`). New planes of OKLab that all of a team see, and the mean change of
 * lightness by light.
 */
export async function paintingLight(
  lighting: Lighting,
  { width, height }: Sides,
  { team, checkpoint }: Sharing,
): Promise<{ lab: Float32Array[]; changed: number }> {
  const { thin, wide, gx, gy } = lighting.relief;
  const planes = [...lighting.stroked, thin, wide, gx, gy];
  const by = lightPainting(lighting);
  const lab = [0, 1, 2].map(() => team.take(width * height));
  const bands = [...bandParts({ from: 0, to: height }, BAND)];
  const given = bands.map((band): GivenOf<typeof lightBand> => [planes, by, width, lab, band]);
  let changed = 0;
  const add = (sums: number[]) => {
    for (const sum of sums) changed += sum;
  };
  await team.each(lightBand, given, add, checkpoint);
  return { lab, changed: changed / (width * height) };
}
