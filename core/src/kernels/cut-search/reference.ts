import type { Costs } from '../cut-costs/reference.ts';
import { NodeHeap } from './node-heap.ts';

/** A search for a cut over the corners of a strip of `width` × `length` pixels. */
export interface CutSearch {
  width: number;
  length: number;
  /** Columns between which the cut stays. */
  low: number;
  high: number;
  /** Rows to walk: the strip's length, or twice it. */
  rows: number;
  from: readonly number[];
  /** Column at which to arrive, or null for any. */
  to: number | null;
  /** 1 where a corner may be used; every corner between the columns, when absent. */
  allowed?: Uint8Array;
}

/**
 * The cheapest way from the first row to the last (Dijkstra 1959), as corners row by row: `(width + 1) · y + x`. Empty where
 * there is none.
 */
export function searchCut(costs: Costs, search: CutSearch): Int32Array {
  const nodes = (search.width + 1) * (search.rows + 1);
  const cost = new Float64Array(nodes).fill(Number.POSITIVE_INFINITY);
  const from = new Int32Array(nodes).fill(-1);
  const heap = new NodeHeap();
  for (const column of search.from) {
    cost[column] = 0;
    heap.push(column, 0);
  }
  return wayTo(walk(heap, costs, search, cost, from), from);
}

/** Corners from the first row to `end`, by the corner that each was reached from. */
export function wayTo(end: number, from: Int32Array): Int32Array {
  const path: number[] = [];
  for (let node = end; node >= 0; node = from[node]) path.push(node);
  return Int32Array.from(path.reverse());
}

/** Cost of the edge from corner (x, y): down, up, right or left; infinite where the search may not go. */
function edgeCost(
  { upright, level }: Costs,
  { width, length, low, high, rows }: CutSearch,
  way: number,
  x: number,
  y: number,
): number {
  const row = y < length ? y : y - length;
  // The row past the last one is the first again.
  const inRow = (row === length ? 0 : row) * width;
  if (way === 0) return y === rows ? Number.POSITIVE_INFINITY : upright[inRow + x];
  if (way === 1) {
    return y === 0 ? Number.POSITIVE_INFINITY : upright[(row === 0 ? length - 1 : row - 1) * width + x];
  }
  if (way === 2) return x >= high ? Number.POSITIVE_INFINITY : level[inRow + x];
  return x <= low ? Number.POSITIVE_INFINITY : level[inRow + x - 1];
}

/** Dijkstra's search until a node of the last row is settled: that node, or −1. */
function walk(heap: NodeHeap, costs: Costs, search: CutSearch, cost: Float64Array, from: Int32Array): number {
  const { width, rows, to, allowed } = search;
  const across = width + 1;
  const steps = [across, -across, 1, -1];
  while (heap.pop()) {
    const node = heap.node;
    const here = heap.cost;
    if (here > cost[node]) continue;
    const y = (node / across) | 0;
    const x = node - y * across;
    if (y === rows && (to === null || to === x)) return node;
    for (let way = 0; way < 4; way++) {
      const edge = edgeCost(costs, search, way, x, y);
      if (edge === Number.POSITIVE_INFINITY) continue;
      const next = node + steps[way];
      const total = here + edge;
      if (total >= cost[next] || (allowed && !allowed[next])) continue;
      cost[next] = total;
      from[next] = node;
      heap.push(next, total);
    }
  }
  return -1;
}

export const reference = { searchCut };
