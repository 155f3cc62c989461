import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { Raster } from '../../raster/raster.ts';
import { resizingArea } from '../../sampling/resize.ts';
import { mean } from '../../statistics/statistics.ts';
import { inParts, runSteps } from '../../work/steps.ts';
import { heightOfNormals } from '../relief/integrate.ts';

/** Longest edge at which both are compared with each other. */
const COMPARED = 512;
/** How far a normal map and a height tell of one surface. */
export interface Agreement {
  /** What of the height that the normals tell the shipped height does not explain: RMS as a share, 0…1. */
  apart: number;
  /** Depth of the surface that the normals tell, as a share of the longer edge, where the height's 0…1 is its whole. */
  depth: number;
}

/** Normals as a file of 8 bits holds them, their green up, reduced through their slopes; z is 1. */
async function shipped(normal: Raster, green: 1 | -1, checkpoint: () => Promise<void>): Promise<Raster> {
  const { length } = normal.planes[0];
  const slopes = [PLANES.take(length), PLANES.take(length)];
  const inPart = (from: number, to: number) => {
    const part = KERNELS.shippedSlopes(
      normal.planes.map((plane) => plane.subarray(from, to)),
      green,
    );
    for (const [c, plane] of part.entries()) slopes[c].set(plane, from);
    PLANES.give(...part);
  };
  await runSteps(inParts(length, inPart), checkpoint);
  const scale = Math.min(1, COMPARED / Math.max(normal.width, normal.height));
  const [width, height] = [Math.round(normal.width * scale), Math.round(normal.height * scale)];
  const whole = new Raster(normal.width, normal.height, slopes);
  const { planes } = await runSteps(resizingArea(whole, width, height), checkpoint);
  if (planes[0] !== slopes[0]) PLANES.give(...slopes);
  return new Raster(width, height, [...planes, new Float32Array(width * height).fill(1)]);
}

/** Sums over two heights, the first less its mean: of their product, and of the squares of each. */
function products(height: Float32Array, told: Float32Array) {
  const middle = mean(height);
  let together = 0;
  let own = 0;
  let whole = 0;
  for (let i = 0; i < told.length; i++) {
    const h = height[i] - middle;
    together += h * told[i];
    own += h * h;
    whole += told[i] * told[i];
  }
  return { together, own, whole };
}

/**
 * Integrates a normal map as it ships on the torus (Frankot & Chellappa 1988) and fits the height it ships with to what comes
 * out, by least squares. `normal` are unit vectors, `height` 0…1 of the same sides; `green` is +1 where green points up.
 * `checkpoint` is awaited between its steps. A flat tile agrees with any: nothing is apart, and its depth is 0.
 */
export async function agreementOf(
  normal: Raster,
  height: Float32Array,
  green: 1 | -1,
  checkpoint: () => Promise<void> = async () => {},
): Promise<Agreement> {
  const slopes = await shipped(normal, green, checkpoint);
  await checkpoint();
  const told = await runSteps(heightOfNormals(slopes), checkpoint);
  await checkpoint();
  const whole = new Raster(normal.width, normal.height, [height]);
  const { planes } = await runSteps(resizingArea(whole, slopes.width, slopes.height), checkpoint);
  const { together, own, whole: all } = products(planes[0], told);
  // Below a thousandth of the edge's thousandth nothing is told but rounding.
  if (all / told.length < 1e-12) return { apart: 0, depth: 0 };
  if (own === 0) return { apart: 1, depth: 0 };
  const depth = together / own;
  return { apart: Math.sqrt(Math.max(0, 1 - (depth * together) / all)), depth };
}
