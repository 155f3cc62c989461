import { blurPlanes } from '../../filters/blur-planes.ts';
import type { Field } from '../../filters/gaussian.ts';
import { smoothStep } from '../../lattice/smooth-step.ts';
import { mapped } from '../../planes/mapped.ts';
import { percentiles } from '../../statistics/statistics.ts';
import type { Sharing } from '../../team/context.ts';

const OCTAVES = 6;
/** σ of the finest detail that counts, as a share of the shorter edge. */
const FINEST = 1 / 730;
const octaveSigma = (k: number) => 0.7 * 2 ** (k - 9);
/** The mean octave of a common tile. */
export const COMMON = 3;
/** Below this a tile has no detail of its own. */
const FLAT = 1e-9;

function squaredDifference(one: Float32Array, other: Float32Array): number {
  let sum = 0;
  for (let i = 0; i < one.length; i++) sum += (one[i] - other[i]) * (one[i] - other[i]);
  return sum;
}

/**
 * The mean octave of a tile's own detail, weighted by its energy: 1 fine to 6 broad. `lightness` is OKLab L at the working
 * size.
 */
export async function ownSize(lightness: Float32Array, field: Field, context: Sharing): Promise<number> {
  const edge = Math.min(field.width, field.height);
  const sigmas = [FINEST, ...Array.from({ length: OCTAVES }, (_, k) => octaveSigma(k + 1))];
  const blurs = sigmas.map((share) => ({ plane: lightness, sigma: share * edge }));
  const blurred = await blurPlanes(blurs, field, context);
  let [weighted, total] = [0, 0];
  for (let k = 1; k <= OCTAVES; k++) {
    const [finer, broader] = blurred.slice(k - 1);
    const energy = squaredDifference(finer, broader);
    weighted += k * energy;
    total += energy;
    await context.checkpoint(k / OCTAVES);
  }
  context.team.give(...blurred);
  return total > FLAT * lightness.length ? weighted / total : COMMON;
}

const [LEAST_SHAPE, MOST_SHAPE] = [0.0025, 0.018];

/** By how many halvings what is drawn in small shapes makes the smallest shape kept smaller. */
const FOR_DRAWING = 1.3;

/** Size of the smallest shape kept, as a share of the shorter edge, by the tile's own size, its small drawing and the dial. */
export const keptShape = (own: number, drawn: number, dial: number): number =>
  Math.min(
    MOST_SHAPE,
    Math.max(
      LEAST_SHAPE,
      0.0085 * 2 ** (0.8 * (own - COMMON)) * 2 ** (2.4 * (dial - 0.5)) * 2 ** (-FOR_DRAWING * drawn),
    ),
  );

/** σ of what counts as drawing, fine and broad, and of the surroundings over which its contrast is taken: shares of the edge. */
const DRAWN_FINE = 1 / 512;
const DRAWN_BROAD = 4 / 512;
const DRAWN_AROUND = 1 / 50;
/** Contrast (OKLab lightness) of half the tile at which small shapes begin to be a drawing, and at which they are one. */
const [FAINT_DRAWING, PLAIN_DRAWING] = [0.018, 0.036];

/**
 * How much of a tile is drawn in small shapes, 0..1: by the contrast that half of it has at least between 0.2 and 0.8 % of the
 * shorter edge. Shells, grass and daisies have it nearly everywhere, a floor at its joints alone. `lightness` is OKLab L at the
 * working size.
 */
export async function drawnShareOf(lightness: Float32Array, field: Field, context: Sharing): Promise<number> {
  const edge = Math.min(field.width, field.height);
  const blurs = [DRAWN_FINE, DRAWN_BROAD].map((share) => ({ plane: lightness, sigma: share * edge }));
  const [fine, broad] = await blurPlanes(blurs, field, context);
  const squares = mapped(fine, (value, i) => (value - broad[i]) ** 2);
  const [around] = await blurPlanes([{ plane: squares, sigma: DRAWN_AROUND * edge }], field, context);
  const [middle] = percentiles(around, [50]);
  context.team.give(fine, broad, around);
  return smoothStep(FAINT_DRAWING, PLAIN_DRAWING, Math.sqrt(Math.max(0, middle)));
}
