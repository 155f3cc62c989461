import type { Sides } from '../raster/sides.ts';
import { cellularNoise, type Nearest } from './cellular.ts';
import { directionalNoise } from './directional.ts';
import { gradientNoise } from './gradient.ts';
import { finer, type Lattice, nearestLattice, shapeOfLattice } from './lattice.ts';

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

/** The far end of the distances of cellular noise, in cells. */
const FARTHEST = 1.15;
const SECOND_FARTHEST = 1.5;

const clamp = (value: number) => Math.min(1, Math.max(0, value));

/** One layer of a noise, 0..1, as a function of cells across and down. */
function layerOf(kind: NoiseKind, lattice: Lattice, seed: number): (x: number, y: number) => number {
  if (kind === 'fractal' || kind === 'ridged' || kind === 'billowed') {
    const noise = gradientNoise(lattice, seed);
    if (kind === 'fractal') return (x, y) => 0.5 + 0.5 * noise(x, y);
    if (kind === 'billowed') return (x, y) => Math.abs(noise(x, y));
    return (x, y) => (1 - Math.abs(noise(x, y))) ** 2;
  }
  const cells = cellularNoise(lattice, seed);
  const near: Nearest = { first: 0, second: 0, value: 0 };
  return (x, y) => {
    cells(x, y, near);
    if (kind === 'cells') return clamp(near.first / FARTHEST);
    if (kind === 'second-cells') return clamp(near.second / SECOND_FARTHEST);
    if (kind === 'cell-values') return near.value;
    return clamp(near.second - near.first);
  };
}

/**
 * Noise of a tile as a function of its coordinates, each 0..1; values 0..1. It meets itself at the edges to the bit: fractal
 * sums of gradient noise (Perlin 2002), ridged and billowed ones (Musgrave 1994), cellular noise (Worley 1996) and
 * directional noise (Tricard et al. 2019).
 */
export function noiseOf(shape: NoiseShape, tile: TileSize): (u: number, v: number) => number {
  const { kind, octaves, gain, warp, seed } = shape;
  const lattice = cellsOfNoise(shape, tile);
  const { xu, xv, yu, yv } = lattice;
  const [warpX, warpY] = [0x101, 0x202].map((k) => gradientNoise(lattice, seed + k));
  if (kind === 'directional') {
    const straight = Math.max(1, 2 * shape.stretch);
    const waves = directionalNoise(yu, yv, straight, seed);
    return (u, v) => {
      const [x, y] = [xu * u + xv * v, yu * u + yv * v];
      const [du, dv] =
        warp === 0 ? [0, 0] : [(warp * warpX(x, y)) / (xu || yv), (warp * warpY(x, y)) / (yv || xu)];
      return 0.5 + 0.5 * waves(u + du, v + dv);
    };
  }
  const layers = Array.from({ length: octaves }, (_, k) => ({
    of: layerOf(kind, finer(lattice, 2 ** k), seed + 31 * k),
    times: 2 ** k,
    weight: gain ** k,
  }));
  const whole = layers.reduce((sum, { weight }) => sum + weight, 0);
  return (u, v) => {
    let x = xu * u + xv * v;
    let y = yu * u + yv * v;
    if (warp !== 0) [x, y] = [x + warp * warpX(x, y), y + warp * warpY(x, y)];
    let sum = 0;
    for (const { of, times, weight } of layers) sum += weight * of(times * x, times * y);
    return sum / whole;
  };
}
