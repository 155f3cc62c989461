/**
 * Solves a square system whose right side stands in the last column, by elimination with pivoting; the rows are written over. An unknown
 * that no row tells of is 0.
 */
export function eliminate(rows: number[][]): number[] {
  const n = rows.length;
  for (let i = 0; i < n; i++) {
    let pivot = i;
    for (let r = i + 1; r < n; r++) if (Math.abs(rows[r][i]) > Math.abs(rows[pivot][i])) pivot = r;
    [rows[i], rows[pivot]] = [rows[pivot], rows[i]];
    for (let r = 0; r < n; r++) {
      if (r === i || rows[i][i] === 0) continue;
      const factor = rows[r][i] / rows[i][i];
      for (let c = i; c <= n; c++) rows[r][c] -= factor * rows[i][c];
    }
  }
  return rows.map((row, i) => (row[i] === 0 ? 0 : row[n] / row[i]));
}
