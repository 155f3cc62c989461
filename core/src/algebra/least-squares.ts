import { eliminate } from './eliminate.ts';

/**
 * Weighted least squares: the coefficients that bring `rows`·c nearest to `values`. Normal equations
 * with pivoting, a hair of ridge so that a flat input has an answer.
 */
export function leastSquares(rows: number[][], values: number[], weights: number[]): number[] {
  const n = rows[0].length;
  const a = Array.from({ length: n }, () => new Array<number>(n + 1).fill(0));
  rows.forEach((row, k) => {
    const w = weights[k];
    for (let i = 0; i < n; i++) {
      for (let j = 0; j < n; j++) a[i][j] += w * row[i] * row[j];
      a[i][n] += w * row[i] * values[k];
    }
  });
  for (let i = 0; i < n; i++) a[i][i] += 1e-9 * rows.length;
  return eliminate(a);
}
