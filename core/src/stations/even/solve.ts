/**
 * Weighted least squares: the coefficients that bring `rows`·c nearest to `values`. Normal equations
 * with pivoting, a hair of ridge so that a flat input has an answer.
 */
export function solve(rows: number[][], values: number[], weights: number[]): number[] {
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
  for (let i = 0; i < n; i++) {
    let pivot = i;
    for (let r = i + 1; r < n; r++) if (Math.abs(a[r][i]) > Math.abs(a[pivot][i])) pivot = r;
    [a[i], a[pivot]] = [a[pivot], a[i]];
    for (let r = 0; r < n; r++) {
      if (r === i || a[i][i] === 0) continue;
      const factor = a[r][i] / a[i][i];
      for (let c = i; c <= n; c++) a[r][c] -= factor * a[i][c];
    }
  }
  return a.map((row, i) => (row[i] === 0 ? 0 : row[n] / row[i]));
}
