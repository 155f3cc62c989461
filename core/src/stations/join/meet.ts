import { seen } from '../../kernels/cut-costs/reference.ts';
import type { Strip } from '../../kernels/cut-costs/strip.ts';
import { Raster } from '../../raster/raster.ts';
import { resizeArea } from '../../sampling/resize.ts';
import type { Bend } from './bend.ts';

/** The search runs on strips of this many pixels along a tile's edge. */
const SEARCH_SIZE = 256;
/** Farthest movement, as a share of the tile. */
const FARTHEST = 1 / 28;
const BEND_COST = 0.15;
/** Rows over which the likeness of the two sides is taken together, each way. */
const WINDOW = 4;
const STEEPEST = 0.25;
/** Steps kept of the movement along the strip. */
const STEPS = 96;

/** Mean difference of the copies for each row and movement: rows × labels. */
function differences(strip: Strip, radius: number, cyclic: boolean): Float32Array {
  const { width, length, a, b } = strip;
  const side = 2 * radius + 1;
  const labels = side * side;
  const raw = new Float32Array(length * labels);
  const low = radius;
  const high = width - radius;
  const rowAt = (y: number) => (cyclic ? (y + length) % length : Math.min(length - 1, Math.max(0, y)));
  for (let y = 0; y < length; y++) {
    for (let dy = -radius; dy <= radius; dy++) {
      const half = Math.floor(dy / 2);
      const rowA = rowAt(y + dy - half) * width;
      const rowB = rowAt(y - half) * width;
      for (let dx = -radius; dx <= radius; dx++) {
        const left = Math.floor(dx / 2);
        let sum = 0;
        for (let x = low; x < high; x++) {
          const p = rowA + x + dx - left;
          const q = rowB + x - left;
          for (let c = 0; c < a.length; c++) sum += Math.abs(a[c][p] - b[c][q]);
        }
        raw[y * labels + (dy + radius) * side + dx + radius] = sum / (high - low);
      }
    }
  }
  const out = new Float32Array(raw.length);
  for (let y = 0; y < length; y++) {
    for (let k = -WINDOW; k <= WINDOW; k++) {
      const row = rowAt(y + k) * labels;
      for (let l = 0; l < labels; l++) out[y * labels + l] += raw[row + l] / (2 * WINDOW + 1);
    }
  }
  return out;
}

/** The cheapest run of movements along the strip (Viterbi 1967); two laps where it meets itself. */
function cheapestRun(costs: Float32Array, length: number, radius: number, cyclic: boolean): Int32Array {
  const side = 2 * radius + 1;
  const labels = side * side;
  const laps = cyclic ? 2 : 1;
  const from = new Int16Array(laps * length * labels);
  let total = costs.slice(0, labels);
  // A usual difference is the measure of what a bend costs.
  const usual = costs.reduce((sum, v) => sum + v, 0) / costs.length;
  for (let step = 1; step < laps * length; step++) {
    const next = new Float32Array(labels);
    const row = (step % length) * labels;
    for (let l = 0; l < labels; l++) {
      const lx = l % side;
      const ly = Math.floor(l / side);
      let best = Number.POSITIVE_INFINITY;
      let origin = l;
      for (let j = Math.max(0, ly - 1); j <= Math.min(side - 1, ly + 1); j++) {
        for (let i = Math.max(0, lx - 1); i <= Math.min(side - 1, lx + 1); i++) {
          const value = total[j * side + i] + BEND_COST * usual * ((i - lx) ** 2 + (j - ly) ** 2);
          if (value < best) {
            best = value;
            origin = j * side + i;
          }
        }
      }
      next[l] = best + costs[row + l];
      from[step * labels + l] = origin;
    }
    total = next;
  }
  let label = total.indexOf(total.reduce((a, b) => Math.min(a, b)));
  const run = new Int32Array(length);
  for (let step = laps * length - 1; step >= 0; step--) {
    // Of two laps the middle one and a half are settled: the end of the first and the start of the second.
    const row = step % length;
    if (!cyclic || (step >= length / 2 && step < 1.5 * length)) run[row] = label;
    label = from[step * labels + label];
  }
  return run;
}

/** Smoothed, never steeper than allowed, and brought to even steps. */
function settled(values: Float64Array, cyclic: boolean, scale: number): number[] {
  const n = values.length;
  let line = Float64Array.from(values);
  const at = (k: number) => line[cyclic ? ((k % n) + n) % n : Math.min(n - 1, Math.max(0, k))];
  const smooth = () => {
    line = line.map((_, k) => (at(k - 2) + 4 * at(k - 1) + 6 * at(k) + 4 * at(k + 1) + at(k + 2)) / 16);
  };
  for (let k = 0; k < 8; k++) smooth();
  const steepest = () => line.reduce((most, v, k) => Math.max(most, Math.abs(at(k + 1) - v)), 0);
  for (let k = 0; k < 200 && steepest() > STEEPEST; k++) smooth();
  return Array.from({ length: STEPS }, (_, k) => {
    const t = ((k + 0.5) / STEPS) * n - 0.5;
    const i = Math.floor(t);
    return Math.round((at(i) + (at(i + 1) - at(i)) * (t - i)) * scale * 1e6) / 1e6;
  });
}

/**
 * The small smooth movement that brings ridges and rows together across a seam: displacements of up to
 * 1/64 of the tile, dynamic programming along the strip with 0.15·|Δ|² in units of the usual difference,
 * two laps where the strip is cyclic. `size` is the tile's edge in pixels of the strip; linear values.
 */
export function findBend(strip: Strip, size: number, cyclic: boolean): Bend {
  const scale = Math.min(1, SEARCH_SIZE / size);
  const width = Math.max(8, Math.round(strip.width * scale));
  const length = Math.max(8, Math.round(strip.length * scale));
  const small = (planes: Float32Array[]) =>
    resizeArea(new Raster(strip.width, strip.length, planes), width, length).planes.map(seen);
  const reduced: Strip = { width, length, a: small(strip.a), b: small(strip.b) };
  const radius = Math.max(1, Math.min(Math.floor((width - 4) / 2), Math.round(FARTHEST * size * scale)));
  const run = cheapestRun(differences(reduced, radius, cyclic), length, radius, cyclic);
  const side = 2 * radius + 1;
  const unit = 1 / (size * scale);
  return {
    across: settled(
      Float64Array.from(run, (l) => (l % side) - radius),
      cyclic,
      unit,
    ),
    along: settled(
      Float64Array.from(run, (l) => Math.floor(l / side) - radius),
      cyclic,
      unit,
    ),
    cyclic,
  };
}
