/** What a filter reads beyond an edge: the other side (torus) or its own mirror image. */
export type Edge = 'wrap' | 'mirror';

/** The rule for each axis. */
export interface Edges {
  x: Edge;
  y: Edge;
}

export const TORUS: Edges = { x: 'wrap', y: 'wrap' };
export const MIRROR: Edges = { x: 'mirror', y: 'mirror' };

/** The index inside 0..n−1 that represents any whole `i` under `edge` (mirror repeats the border sample). */
export function edgeIndex(i: number, n: number, edge: Edge): number {
  if (i >= 0 && i < n) return i;
  if (edge === 'wrap') {
    const r = i % n;
    return r < 0 ? r + n : r;
  }
  const period = 2 * n;
  let r = i % period;
  if (r < 0) r += period;
  return r < n ? r : period - 1 - r;
}

/** A table of `edgeIndex` for −`before` … n−1+`after`; entry 0 represents −`before`. */
export function edgeTable(n: number, before: number, after: number, edge: Edge): Int32Array {
  const table = new Int32Array(n + before + after);
  for (let k = 0; k < table.length; k++) table[k] = edgeIndex(k - before, n, edge);
  return table;
}
