import { KERNELS } from '../kernels/kernels.ts';
import type { NoiseLayer } from '../kernels/noise-layers/reference.ts';
import { finer, type Lattice, nearestLattice, shapeOfLattice } from '../lattice/lattice.ts';
import type { Sides } from '../raster/sides.ts';
import { directionalNoise } from './directional.ts';
import { gradientRow } from './gradient.ts';

export const NOISE_KINDS = [
  'fractal',
  'ridged',
  'billowed',
  'cells',
  'cell-edges',
  'second-cells',
  'cell-values',
  'directional',
] as const;
export type NoiseKind = (typeof NOISE_KINDS)[number];

export interface NoiseShape {
  kind: NoiseKind;
  /** Size of the coarsest feature in mm, across its direction. */
  sizeMm: number;
  /** Layers, each twice as fine as the one before, and how much each weighs against that. */
  octaves: number;
  gain: number;
  /** How many times as long as wide features are, along their direction. */
  stretch: number;
  /** Direction, degrees clockwise from the right. */
  degrees: number;
  /** How far places are displaced by a slower noise, as a share of the size. */
  warp: number;
  seed: number;
}

/** How large a tile is. */
export interface TileSize extends Sides {
  edgeMetres: number;
}

/** Cells of the nearest size, direction and stretch that repeat with the tile. */
export function cellsOfNoise(shape: NoiseShape, { width, height, edgeMetres }: TileSize): Lattice {
  const widthMm = (1000 * edgeMetres * width) / Math.max(width, height);
  return nearestLattice({ ...shape, size: Math.min(1, shape.sizeMm / widthMm), aspect: height / width });
}

/** Size in mm, stretch and direction that a noise has on this tile, the nearest that repeat with it. */
export function snappedNoise(
  shape: NoiseShape,
  tile: TileSize,
): Pick<NoiseShape, 'sizeMm' | 'stretch' | 'degrees'> {
  const found = shapeOfLattice(cellsOfNoise(shape, tile), tile.height / tile.width);
  const widthMm = (1000 * tile.edgeMetres * tile.width) / Math.max(tile.width, tile.height);
  return { sizeMm: found.size * widthMm, stretch: found.stretch, degrees: found.degrees };
}

/** Values of a noise along a row of the tile: at each share `us` across and at one share down, into `out` from a place on. */
export type NoiseRow = (us: Float64Array, v: number, out: Float32Array, at: number) => void;

/** Places of a row in cells, displaced by a slower noise of the same cells. */
function cellPlaces(lattice: Lattice, warp: number, seed: number) {
  const { xu, xv, yu, yv } = lattice;
  const [warpX, warpY] = [0x101, 0x202].map((k) => gradientRow(lattice, seed + k));
  let [xs, ys, dx, dy] = [0, 0, 0, 0].map(() => new Float64Array(0));
  return (us: Float64Array, v: number) => {
    if (xs.length !== us.length) [xs, ys, dx, dy] = [0, 0, 0, 0].map(() => new Float64Array(us.length));
    for (let k = 0; k < us.length; k++) {
      xs[k] = xu * us[k] + xv * v;
      ys[k] = yu * us[k] + yv * v;
    }
    if (warp !== 0) {
      warpX(xs, ys, 1, dx);
      warpY(xs, ys, 1, dy);
    }
    return { xs, ys, dx, dy };
  };
}

/** Directional noise, displaced by a slower one. */
function directionalRow({ stretch, warp, seed }: NoiseShape, lattice: Lattice): NoiseRow {
  const { xu, yu, yv } = lattice;
  const waves = directionalNoise(yu, yv, Math.max(1, 2 * stretch), seed);
  const places = cellPlaces(lattice, warp, seed);
  return (us, v, out, at) => {
    const { dx, dy } = places(us, v);
    for (let k = 0; k < us.length; k++) {
      const du = warp === 0 ? 0 : (warp * dx[k]) / (xu || yv);
      const dv = warp === 0 ? 0 : (warp * dy[k]) / (yv || xu);
      out[at + k] = 0.5 + 0.5 * waves(us[k] + du, v + dv);
    }
  };
}

/**
 * Noise of a tile, row by row; coordinates are shares of its sides, values 0..1. It meets itself at the edges to the bit:
 * fractal sums of gradient noise (Perlin 2002), ridged and billowed ones (Musgrave 1994), cellular noise (Worley 1996) and
 * directional noise (Tricard et al. 2019).
 */
export function noiseRow(shape: NoiseShape, tile: TileSize): NoiseRow {
  const { kind, octaves, gain, warp, seed } = shape;
  const lattice = cellsOfNoise(shape, tile);
  if (kind === 'directional') return directionalRow(shape, lattice);
  const whole = Array.from({ length: octaves }, (_, k) => gain ** k).reduce((a, b) => a + b, 0);
  const layers = Array.from({ length: octaves }, (_, k): NoiseLayer => {
    const times = 2 ** k;
    return { lattice: finer(lattice, times), seed: seed + 31 * k, times, weight: gain ** k / whole };
  });
  const places = cellPlaces(lattice, warp, seed);
  return (us, v, out, at) => {
    const { xs, ys, dx, dy } = places(us, v);
    if (warp !== 0) {
      for (let k = 0; k < xs.length; k++) {
        xs[k] += warp * dx[k];
        ys[k] += warp * dy[k];
      }
    }
    KERNELS.noiseLayers(kind, layers, xs, ys, out.subarray(at, at + us.length));
  };
}
