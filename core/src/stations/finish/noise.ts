import type { Sides } from '../../raster/sides.ts';
import { inParts, PAUSE_ROWS, type Steps } from '../../work/steps.ts';

const OCTAVES = 3;
/** Brings the sum of octaves to about −1..1. */
const SCALE = 1.25;

/** A direction for a corner of the grid, the same for the same seed (integer hash after Wang 2007). */
function angleAt(x: number, y: number, seed: number): number {
  let h = (x * 374761393 + y * 668265263 + seed * 974634777) | 0;
  h = Math.imul(h ^ (h >>> 13), 1274126177);
  h ^= h >>> 16;
  return ((h >>> 0) / 2 ** 32) * 2 * Math.PI;
}

const fade = (t: number) => t * t * t * (t * (6 * t - 15) + 10);

/** Gradients on a grid that wraps, and how much they weigh. */
interface Octave {
  table: Float32Array;
  across: number;
  down: number;
  weight: number;
}

/** Adds rows of an octave. */
function addOctave(
  out: Float32Array,
  { width, height }: Sides,
  { table, across, down, weight }: Octave,
  from: number,
  to: number,
): void {
  const slope = (x: number, y: number, dx: number, dy: number) => {
    const k = 2 * ((y % down) * across + (x % across));
    return table[k] * dx + table[k + 1] * dy;
  };
  for (let y = from, i = from * width; y < to; y++) {
    const v = ((y + 0.5) / height) * down;
    const y0 = Math.floor(v);
    const dy = v - y0;
    const fy = fade(dy);
    for (let x = 0; x < width; x++, i++) {
      const u = ((x + 0.5) / width) * across;
      const x0 = Math.floor(u);
      const dx = u - x0;
      const fx = fade(dx);
      const top = slope(x0, y0, dx, dy) * (1 - fx) + slope(x0 + 1, y0, dx - 1, dy) * fx;
      const low = slope(x0, y0 + 1, dx, dy - 1) * (1 - fx) + slope(x0 + 1, y0 + 1, dx - 1, dy - 1) * fx;
      out[i] += weight * (top * (1 - fy) + low * fy);
    }
  }
}

/** Brought to −1..1 and held there, in place. */
function held(values: Float32Array): void {
  for (let i = 0; i < values.length; i++) values[i] = Math.max(-1, Math.min(1, SCALE * values[i]));
}

/**
 * Noise −1..1 that meets itself at the tile's edges: gradients on a grid of `cells` (whole numbers across and down)
 * that wraps (Perlin 2002), three octaves. The same picture at every size.
 */
export function* periodicNoise(
  { width, height }: Sides,
  cells: [number, number],
  seed: number,
): Steps<Float32Array> {
  const out = new Float32Array(width * height);
  let weight = 1;
  for (let octave = 0; octave < OCTAVES; octave++) {
    const [across, down] = cells.map((n) => n * 2 ** octave);
    const table = new Float32Array(2 * across * down);
    for (let y = 0, k = 0; y < down; y++) {
      for (let x = 0; x < across; x++, k += 2) {
        const angle = angleAt(x, y, seed + octave);
        table[k] = Math.cos(angle);
        table[k + 1] = Math.sin(angle);
      }
    }
    for (let from = 0; from < height; from += PAUSE_ROWS) {
      const to = Math.min(height, from + PAUSE_ROWS);
      addOctave(out, { width, height }, { table, across, down, weight }, from, to);
      yield;
    }
    weight /= 2;
  }
  yield* inParts(out.length, (from, to) => held(out.subarray(from, to)));
  return out;
}

/** Cells across and down for noise of a size in mm on a tile. */
export function cellsFor(
  millimetres: number,
  { width, height }: Sides,
  edgeMetres: number,
): [number, number] {
  const longer = Math.max(width, height);
  const along = (side: number) =>
    Math.max(1, Math.round(((side / longer) * edgeMetres * 1000) / millimetres));
  return [along(width), along(height)];
}
