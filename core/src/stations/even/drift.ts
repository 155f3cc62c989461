import { leastSquares } from '../../algebra/least-squares.ts';
import { median } from '../../statistics/statistics.ts';
import type { Steps } from '../../work/steps.ts';

const CELLS = 8;
const FLOOR = 0.01;

/** Share of chance fits that stay below: 95 % point of χ² with five degrees, over five, square root. */
const CHANCE_95 = 1.49;

/** Broad change of light, as shares: 0.05 is about 5 % from part to part. */
export interface Drift {
  rms: number;
  /** What so large an RMS would come to by the scatter of the cells alone, in 95 of 100 cases. */
  chance: number;
}

/**
 * By how much neighbours being alike (a stone wider than a cell) lowers the count of independent cells
 * along one axis: (1 + ρ)/(1 − ρ), ρ the correlation of neighbours (Bartlett 1935).
 */
function inflation(misses: number[], step: number): number {
  let product = 0;
  let square = 0;
  let pairs = 0;
  for (let k = 0; k + step < misses.length; k++) {
    if (step === 1 && k % CELLS === CELLS - 1) continue;
    product += misses[k] * misses[k + step];
    pairs++;
  }
  for (const miss of misses) square += miss * miss;
  const correlation = square > 0 ? product / pairs / (square / misses.length) : 0;
  const rho = Math.min(0.6, Math.max(0, correlation));
  return (1 + rho) / (1 - rho);
}

/** Samples of a cell along its width, about. */
const SAMPLES = 48;

/** Median of log(Y + 0.01) over a cell. */
function middleOf(
  luminanceAt: (x: number, y: number) => number,
  [x0, x1]: [number, number],
  [y0, y1]: [number, number],
): number {
  const step = Math.max(1, Math.floor((x1 - x0) / SAMPLES));
  const cell = new Float64Array(Math.ceil((x1 - x0) / step) * Math.ceil((y1 - y0) / step));
  let k = 0;
  for (let y = y0; y < y1; y += step)
    for (let x = x0; x < x1; x += step) cell[k++] = Math.log(luminanceAt(x, y) + FLOOR);
  return median(cell);
}

/**
 * Broad change of luminance over `width` × `height` pixels: they are cut into 8 × 8 cells, the median of each cell's
 * log(Y + 0.01) is taken, and the answer is the RMS of the least-squares plane and bowl through them,
 * beside what unlike cells (stones, boards) give by chance. Independent of Even's own fit. `luminanceAt` is asked for a few
 * thousand pixels of each cell.
 */
export function* driftAt(
  luminanceAt: (x: number, y: number) => number,
  width: number,
  height: number,
): Steps<Drift> {
  const rows: number[][] = [];
  const values: number[] = [];
  for (let j = 0; j < CELLS; j++) {
    yield;
    for (let i = 0; i < CELLS; i++) {
      const x0 = Math.floor((i * width) / CELLS);
      const x1 = Math.max(x0 + 1, Math.floor(((i + 1) * width) / CELLS));
      const y0 = Math.floor((j * height) / CELLS);
      const y1 = Math.max(y0 + 1, Math.floor(((j + 1) * height) / CELLS));
      const u = (2 * (i + 0.5)) / CELLS - 1;
      const v = (2 * (j + 0.5)) / CELLS - 1;
      rows.push([1, u, v, u * u, u * v, v * v]);
      values.push(middleOf(luminanceAt, [x0, x1], [y0, y1]));
    }
  }
  const coefficients = leastSquares(
    rows,
    values,
    rows.map(() => 1),
  );
  const fitted = rows.map((row) => row.reduce((sum, a, k) => sum + a * coefficients[k], 0));
  const centre = fitted.reduce((a, b) => a + b, 0) / fitted.length;
  const n = fitted.length;
  const terms = coefficients.length;
  const rms = Math.sqrt(fitted.reduce((sum, f) => sum + (f - centre) ** 2, 0) / n);
  const misses = fitted.map((f, k) => values[k] - f);
  const scatter = Math.sqrt(misses.reduce((sum, miss) => sum + miss * miss, 0) / (n - terms));
  const alike = inflation(misses, 1) * inflation(misses, CELLS);
  return { rms, chance: CHANCE_95 * scatter * Math.sqrt(((terms - 1) / n) * alike) };
}

/** `driftAt` of a plane. */
export const drift = (plane: Float32Array, width: number, height: number): Steps<Drift> =>
  driftAt((x, y) => plane[y * width + x], width, height);
