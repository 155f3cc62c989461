import { gaussian } from '../../../filters/gaussian.ts';
import { MIRROR } from '../../../raster/edges.ts';
import type { LightVector } from './light.ts';
import type { Stack } from './sampled.ts';
import { PixelSolver } from './solve-pixel.ts';
import { Subsets } from './subsets.ts';

/** Scales, in shares of the longer edge, at which hollows are compared with how dark they are. */
const SCALE = 0.02;
/** Sweeps of the relaxation that makes a height of slopes. */
const SWEEPS = 200;

/**
 * +1 where lights that were found make raised what is raised, −1 where their azimuths are to be turned by half a circle: a matte surface in light that is not known
 * looks the same raised and recessed. Hollows lie in shadow more often than what stands out, so the darker of what the lights leave
 * unexplained is low.
 */
export function raisedSign({ planes, width, height }: Stack, lights: readonly LightVector[]): 1 | -1 {
  const shots = planes.length;
  const subsets = new Subsets(lights);
  const solver = new PixelSolver(0, shots);
  const values = new Float64Array(shots);
  const [p, q, dark] = [0, 1, 2].map(() => new Float32Array(width * height));
  for (let i = 0; i < p.length; i++) {
    let usable = 0;
    for (let k = 0; k < shots; k++) {
      values[k] = planes[k][i];
      if (values[k] >= 0) usable |= 1 << k;
    }
    if (!solver.solve(values, usable, subsets)) continue;
    const { x, y, z } = solver.out;
    const albedo = Math.hypot(x, y, z);
    const up = Math.max(0.1 * albedo, z);
    p[i] = -x / up;
    q[i] = y / up;
    let [seen, predicted] = [0, 0];
    for (const [k, [lx, ly, lz]] of lights.entries()) {
      if (!(usable & (1 << k))) continue;
      seen += values[k];
      predicted += Math.max(0, lx * x + ly * y + lz * z);
    }
    dark[i] = predicted > 0 ? Math.log(Math.max(0.05, seen / predicted)) : 0;
  }
  const h = relaxed(p, q, width, height);
  const sigma = SCALE * Math.max(width, height);
  const fine = gaussian(h, width, height, sigma / 3, MIRROR);
  const broad = gaussian(h, width, height, 2 * sigma, MIRROR);
  const soft = gaussian(dark, width, height, sigma / 3, MIRROR);
  const level = gaussian(dark, width, height, 2 * sigma, MIRROR);
  let common = 0;
  for (let i = 0; i < h.length; i++) common += (fine[i] - broad[i]) * (soft[i] - level[i]);
  return common < 0 ? -1 : 1;
}

/** A height whose slopes come near to those given, by relaxation in turn: broad forms stay unfinished, which nobody asks for here. */
function relaxed(p: Float32Array, q: Float32Array, width: number, height: number): Float32Array {
  const h = new Float32Array(p.length);
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    for (let y = 1; y + 1 < height; y++) {
      for (let x = 1; x + 1 < width; x++) {
        const i = y * width + x;
        const right = h[i + 1] - (p[i] + p[i + 1]) / 2;
        const left = h[i - 1] + (p[i] + p[i - 1]) / 2;
        const below = h[i + width] - (q[i] + q[i + width]) / 2;
        const above = h[i - width] + (q[i] + q[i - width]) / 2;
        h[i] = (right + left + below + above) / 4;
      }
    }
  }
  return h;
}
