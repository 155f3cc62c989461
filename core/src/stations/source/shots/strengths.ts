import { scaled, type Vector3 } from '../../../algebra/vectors.ts';
import { median, percentiles } from '../../../statistics/statistics.ts';
import type { LightVector } from './light.ts';
import type { ShotLights } from './lights-at.ts';
import type { Samples } from './sampled.ts';
import { PixelSolver } from './solve-pixel.ts';
import { Subsets } from './subsets.ts';

/** Share of the brightness of each shot in the sum of all, in the middle of the pixels. */
function sharesOf({ shots, values, count }: Samples): number[] {
  return Array.from({ length: shots }, (_, k) => {
    const of = Float64Array.from({ length: count }, (__, n) => {
      let sum = 0;
      for (let j = 0; j < shots; j++) sum += values[n * shots + j];
      return values[n * shots + k] / sum;
    });
    return median(of);
  });
}

/** Lights by which a surface that lies level on the whole is as bright as each shot shows it; the first has strength 1. */
function levelLights(shares: number[], directions: readonly LightVector[], ambient: number): LightVector[] {
  const scale = (directions[0][2] + ambient) / shares[0];
  return directions.map((direction, k): Vector3 => {
    const strength = (shares[k] * scale - ambient) / direction[2];
    return scaled(direction, Math.max(0.01, strength));
  });
}

/** A shot that shows less than this share of what the others predict lies in shadow. */
const SHADOW = 0.5;
/** So many pixels of a thousand must lie in shadow for it to tell of the even light. */
const ENOUGH = 3;
/** Rounds in which even light and strengths are found by turns. */
const ROUNDS = 4;
/** Of the pixels in shadow the darker ones count: others lie at its border. */
const DARKER = 30;

/** Even light as it shows in shadows: the darkest shot of a pixel over its albedo, as the other shots have it. 0 where hardly anything lies in shadow. */
function evenIn({ shots, values, count }: Samples, lights: LightVector[], ambient: number): number {
  const subsets = new Subsets(lights);
  const solver = new PixelSolver(ambient, shots);
  const found: number[] = [];
  for (let n = 0; n < count; n++) {
    const pixel = values.subarray(n * shots, (n + 1) * shots);
    const darkest = pixel.indexOf(Math.min(...pixel));
    if (!solver.solveAll(pixel, (2 ** shots - 1) & ~(1 << darkest), subsets)) continue;
    const { x, y, z } = solver.out;
    const albedo = Math.hypot(x, y, z);
    const [lx, ly, lz] = lights[darkest];
    const predicted = Math.max(0, lx * x + ly * y + lz * z) + ambient * albedo;
    if (pixel[darkest] < SHADOW * predicted) found.push(pixel[darkest] / albedo);
  }
  return found.length < (ENOUGH * count) / 1000 ? 0 : percentiles(found, [DARKER])[0];
}

/**
 * How strong each lamp is, and how much light comes from everywhere, from directions that are known: a tile lies level on the
 * whole, so that the middle of its pixels tells the strengths. Even light fits any three shots as a part of the normal does; with four and more it is
 * what is left in shadows. Where there are none it is taken for none.
 */
export function lightsOf(samples: Samples, directions: readonly LightVector[]): Omit<ShotLights, 'distance'> {
  const shares = sharesOf(samples);
  let lights = { vectors: levelLights(shares, directions, 0), ambient: 0 };
  if (directions.length < 4) return lights;
  for (let round = 0; round < ROUNDS; round++) {
    const ambient = evenIn(samples, lights.vectors, lights.ambient);
    lights = { vectors: levelLights(shares, directions, ambient), ambient };
  }
  return lights;
}
