import { median } from '../../raster/statistics.ts';
import { solve } from './solve.ts';

const CELLS = 8;
const FLOOR = 0.01;

/**
 * Broad change of a luminance plane: the plane is cut into 8 × 8 cells, the median of each cell's
 * log(Y + 0.01) is taken, and the answer is the RMS of the least-squares plane and bowl through them.
 * 0.05 means that light varies by about 5 % from part to part. Independent of Even's own fit.
 */
export function drift(plane: Float32Array, width: number, height: number): number {
  const rows: number[][] = [];
  const values: number[] = [];
  for (let j = 0; j < CELLS; j++) {
    for (let i = 0; i < CELLS; i++) {
      const x0 = Math.floor((i * width) / CELLS);
      const x1 = Math.max(x0 + 1, Math.floor(((i + 1) * width) / CELLS));
      const y0 = Math.floor((j * height) / CELLS);
      const y1 = Math.max(y0 + 1, Math.floor(((j + 1) * height) / CELLS));
      const step = Math.max(1, Math.floor((x1 - x0) / 48));
      const cell: number[] = [];
      for (let y = y0; y < y1; y += step) {
        for (let x = x0; x < x1; x += step) cell.push(Math.log(plane[y * width + x] + FLOOR));
      }
      const u = (2 * (i + 0.5)) / CELLS - 1;
      const v = (2 * (j + 0.5)) / CELLS - 1;
      rows.push([1, u, v, u * u, u * v, v * v]);
      values.push(median(cell));
    }
  }
  const coefficients = solve(
    rows,
    values,
    rows.map(() => 1),
  );
  const fitted = rows.map((row) => row.reduce((sum, a, k) => sum + a * coefficients[k], 0));
  const centre = fitted.reduce((a, b) => a + b, 0) / fitted.length;
  return Math.sqrt(fitted.reduce((sum, f) => sum + (f - centre) ** 2, 0) / fitted.length);
}
