import { blurring } from '../../filters/gaussian.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import { smoothStep } from '../../sampling/smooth-step.ts';
import { percentiles } from '../../statistics/statistics.ts';
import type { Steps } from '../../work/steps.ts';

const OCTAVES = 6;
/** σ of the finest detail that counts, as a share of the shorter edge. */
const FINEST = 1 / 730;
const octaveSigma = (k: number) => 0.7 * 2 ** (k - 9);
/** The mean octave of a common tile. */
export const COMMON = 3;
/** Below this a tile has no detail of its own. */
const FLAT = 1e-9;

/**
 * The mean octave of a tile's own detail, weighted by its energy: 1 fine to 6 broad. `lightness` is OKLab L at the working
 * size.
 */
export function* ownSize(lightness: Float32Array, { width, height }: Sides, edges: Edges): Steps<number> {
  const edge = Math.min(width, height);
  let finer = yield* blurring(lightness, width, height, FINEST * edge, edges);
  let [weighted, total] = [0, 0];
  for (let k = 1; k <= OCTAVES; k++) {
    const broader = yield* blurring(lightness, width, height, octaveSigma(k) * edge, edges);
    let energy = 0;
    for (let i = 0; i < finer.length; i++) energy += (finer[i] - broader[i]) ** 2;
    weighted += k * energy;
    total += energy;
    finer = broader;
    yield;
  }
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
export function* drawnShareOf(
  lightness: Float32Array,
  { width, height }: Sides,
  edges: Edges,
): Steps<number> {
  const edge = Math.min(width, height);
  const fine = yield* blurring(lightness, width, height, DRAWN_FINE * edge, edges);
  const broad = yield* blurring(lightness, width, height, DRAWN_BROAD * edge, edges);
  const squares = fine.map((value, i) => (value - broad[i]) ** 2);
  yield;
  const around = yield* blurring(squares, width, height, DRAWN_AROUND * edge, edges);
  const [middle] = percentiles(around, [50]);
  return smoothStep(FAINT_DRAWING, PLAIN_DRAWING, Math.sqrt(Math.max(0, middle)));
}
