import { NodeHeap } from './node-heap.ts';
import type { Strip } from './strip.ts';

/** Corner positions of a cut, from the strip's start to its end: column 0…width, row 0…length. */
export interface CutPath {
  columns: Int32Array;
  rows: Int32Array;
}

/** Costs of crossing between neighbouring pixels of a strip. */
interface Costs {
  /** Between (x−1, y) and (x, y), at y·width + x. */
  upright: Float32Array;
  /** Between (x, y−1) and (x, y), at y·width + x; row 0 meets the last row. */
  level: Float32Array;
}

/** Share of the strip, at each side, that the cut keeps out of. */
export const KEEP_OUT = 0.18;

const FLAT = 0.02;
const LENGTH_COST = 0.002;

/** Square root of linear light: near enough to what the eye sees as equal steps. */
export function seen(plane: Float32Array): Float32Array {
  const out = new Float32Array(plane.length);
  for (let i = 0; i < out.length; i++) out[i] = plane[i] > 0 ? Math.sqrt(plane[i]) : 0;
  return out;
}

/** Colour steps of a copy: from the pixel to the left and from the one above (in the first row, from the last). */
function stepsOf(planes: Float32Array[], width: number, length: number): Costs {
  const upright = new Float32Array(width * length);
  const level = new Float32Array(width * length);
  for (const plane of planes) {
    for (let y = 0; y < length; y++) {
      const row = y * width;
      const above = (y === 0 ? length - 1 : y - 1) * width;
      for (let x = 0; x < width; x++) {
        const value = plane[row + x];
        const across = x > 0 ? value - plane[row + x - 1] : 0;
        const down = value - plane[above + x];
        upright[row + x] += across * across;
        level[row + x] += down * down;
      }
    }
  }
  for (let i = 0; i < upright.length; i++) {
    upright[i] = Math.sqrt(upright[i]);
    level[i] = Math.sqrt(level[i]);
  }
  return { upright, level };
}

/** Colour distance of the two copies. */
function distanceOf(a: Float32Array[], b: Float32Array[]): Float32Array {
  const out = new Float32Array(a[0].length);
  for (let c = 0; c < a.length; c++) {
    const [plane, other] = [a[c], b[c]];
    for (let i = 0; i < out.length; i++) {
      const d = plane[i] - other[i];
      out[i] += d * d;
    }
  }
  for (let i = 0; i < out.length; i++) out[i] = Math.sqrt(out[i]);
  return out;
}

function costsOf(strip: Strip): Costs {
  const { width, length } = strip;
  const a = strip.a.map(seen);
  const b = strip.b.map(seen);
  const distance = distanceOf(a, b);
  const { upright, level } = stepsOf(a, width, length);
  const other = stepsOf(b, width, length);
  let total = 0;
  for (let i = 0; i < upright.length; i++) {
    upright[i] += other.upright[i];
    level[i] += other.level[i];
    total += upright[i] + level[i];
  }
  const base = total / (8 * upright.length) + FLAT;
  for (let y = 0; y < length; y++) {
    const above = (y === 0 ? length - 1 : y - 1) * width;
    for (let x = 0; x < width; x++) {
      const q = y * width + x;
      if (x > 0) upright[q] = (distance[q] + distance[q - 1]) / (upright[q] + base) + LENGTH_COST;
      level[q] = (distance[q] + distance[above + x]) / (level[q] + base) + LENGTH_COST;
    }
  }
  return { upright, level };
}

interface Search {
  /** Rows to walk: the strip's length, or twice it. */
  rows: number;
  from: number[];
  /** Column at which to arrive, or null for any. */
  to: number | null;
  /** 1 where a corner may be used; corners outside the keep-out only, when absent. */
  allowed?: Uint8Array;
}

function shortest(strip: Strip, costs: Costs, search: Search): CutPath {
  const { width, length } = strip;
  const across = width + 1;
  const low = Math.max(1, Math.ceil(width * KEEP_OUT));
  const high = Math.min(width - 1, Math.floor(width * (1 - KEEP_OUT)));
  const nodes = across * (search.rows + 1);
  const cost = new Float64Array(nodes).fill(Number.POSITIVE_INFINITY);
  const from = new Int32Array(nodes).fill(-1);
  const heap = new NodeHeap();
  for (const column of search.from) {
    cost[column] = 0;
    heap.push(column, 0);
  }
  const end = walk(heap, costs, search, { across, width, length, low, high }, cost, from);
  if (end < 0) throw new Error('The cut found no way through its strip.');
  const path: number[] = [];
  for (let node = end; node >= 0; node = from[node]) path.push(node);
  path.reverse();
  return {
    columns: Int32Array.from(path, (node) => node % across),
    rows: Int32Array.from(path, (node) => Math.floor(node / across)),
  };
}

interface Field {
  across: number;
  width: number;
  length: number;
  low: number;
  high: number;
}

/** Dijkstra's search until a node of the last row is settled: that node, or −1. A plain loop, for the compiler. */
function walk(
  heap: NodeHeap,
  { upright, level }: Costs,
  { rows, to, allowed }: Search,
  { across, width, length, low, high }: Field,
  cost: Float64Array,
  from: Int32Array,
): number {
  while (heap.pop()) {
    const node = heap.node;
    const here = heap.cost;
    if (here > cost[node]) continue;
    const y = (node / across) | 0;
    const x = node - y * across;
    if (y === rows && (to === null || to === x)) return node;
    const row = y < length ? y : y - length;
    // The row past the last one is the first again.
    const inRow = (row === length ? 0 : row) * width;
    for (let way = 0; way < 4; way++) {
      let next: number;
      let total: number;
      if (way === 0) {
        if (y === rows) continue;
        next = node + across;
        total = here + upright[inRow + x];
      } else if (way === 1) {
        if (y === 0) continue;
        next = node - across;
        total = here + upright[(row === 0 ? length - 1 : row - 1) * width + x];
      } else if (way === 2) {
        if (x >= high) continue;
        next = node + 1;
        total = here + level[inRow + x];
      } else {
        if (x <= low) continue;
        next = node - 1;
        total = here + level[inRow + x - 1];
      }
      if (total >= cost[next] || (allowed && !allowed[next])) continue;
      cost[next] = total;
      from[next] = node;
      heap.push(next, total);
    }
  }
  return -1;
}

/**
 * The true minimum cut between the two copies in a strip: a shortest path over pixel corners in the
 * planar dual, backward moves included, so that it may wind round stones (Kwatra et al. 2003 for the
 * costs). Cyclic strips: the path is unrolled twice, and run again from where it crosses the middle,
 * so that it ends where it began (Reif 1983).
 */
export function minimumCut(strip: Strip, cyclic: boolean): CutPath {
  const costs = costsOf(strip);
  const low = Math.max(1, Math.ceil(strip.width * KEEP_OUT));
  const high = Math.min(strip.width - 1, Math.floor(strip.width * (1 - KEEP_OUT)));
  const columns = Array.from({ length: high - low + 1 }, (_, k) => low + k);
  if (!cyclic) return shortest(strip, costs, { rows: strip.length, from: columns, to: null });
  const unrolled = shortest(strip, costs, { rows: 2 * strip.length, from: columns, to: null });
  const middle = unrolled.columns[unrolled.rows.indexOf(strip.length)];
  return shortest(strip, costs, { rows: strip.length, from: [middle], to: middle });
}

/**
 * A cut decided at another size, found again within a narrow band around it, so that it follows the
 * same way through finer pixels. `scale` is this strip's size over the decided one's.
 */
export function refineCut(strip: Strip, decided: CutPath, scale: number, cyclic: boolean): CutPath {
  const across = strip.width + 1;
  const reach = Math.max(2, Math.ceil(1.5 * scale));
  const allowed = new Uint8Array(across * (strip.length + 1));
  const low = Math.max(1, Math.ceil(strip.width * KEEP_OUT));
  const high = Math.min(strip.width - 1, Math.floor(strip.width * (1 - KEEP_OUT)));
  const place = (column: number) => Math.min(high, Math.max(low, Math.round(column * scale)));
  for (let k = 0; k < decided.columns.length; k++) {
    const cx = place(decided.columns[k]);
    const cy = Math.round(decided.rows[k] * scale);
    for (let y = Math.max(0, cy - reach); y <= Math.min(strip.length, cy + reach); y++) {
      const from = y * across + Math.max(low, cx - reach);
      allowed.fill(1, from, y * across + Math.min(high, cx + reach) + 1);
    }
  }
  const costs = costsOf(strip);
  const first = place(decided.columns[0]);
  if (cyclic) {
    return shortest(strip, costs, { rows: strip.length, from: [first], to: first, allowed });
  }
  const starts: number[] = [];
  for (let x = 0; x < across; x++) if (allowed[x]) starts.push(x);
  return shortest(strip, costs, { rows: strip.length, from: starts, to: null, allowed });
}

/** 1 where the copy `a` is taken (left of the cut), 0 where `b` is. */
export function cutMask(strip: { width: number; length: number }, path: CutPath): Float32Array {
  const flips = new Uint8Array(strip.width * strip.length);
  for (let k = 1; k < path.columns.length; k++) {
    if (path.columns[k] !== path.columns[k - 1]) continue;
    const row = Math.min(path.rows[k], path.rows[k - 1]);
    flips[row * strip.width + path.columns[k]] ^= 1;
  }
  const mask = new Float32Array(strip.width * strip.length);
  for (let y = 0; y < strip.length; y++) {
    let side = 1;
    for (let x = 0; x < strip.width; x++) {
      const i = y * strip.width + x;
      if (flips[i]) side = 1 - side;
      mask[i] = side;
    }
  }
  return mask;
}

const MOVES = { r: [1, 0], l: [-1, 0], d: [0, 1], u: [0, -1] } as const;

/** A path as text for a recipe: start column, then a letter and a count for each straight run. */
export function encodePath(path: CutPath): string {
  let text = `${path.columns[0]}:`;
  let run = 0;
  let last = '';
  const flush = () => {
    if (run > 0) text += last + (run > 1 ? run : '');
  };
  for (let k = 1; k < path.columns.length; k++) {
    const dx = path.columns[k] - path.columns[k - 1];
    const dy = path.rows[k] - path.rows[k - 1];
    const move = dx > 0 ? 'r' : dx < 0 ? 'l' : dy > 0 ? 'd' : 'u';
    if (move !== last) {
      flush();
      run = 0;
      last = move;
    }
    run++;
  }
  flush();
  return text;
}

/** The path of such a text. @throws RangeError where it is not one. */
export function decodePath(text: string): CutPath {
  const match = /^(\d+):((?:[rldu]\d*)+)$/.exec(text);
  if (!match) throw new RangeError('The recipe holds a cut that cannot be read; remove its decisions.');
  const columns = [Number(match[1])];
  const rows = [0];
  for (const [, move, count] of match[2].matchAll(/([rldu])(\d*)/g)) {
    const [dx, dy] = MOVES[move as keyof typeof MOVES];
    for (let n = Number(count || 1); n > 0; n--) {
      columns.push(columns[columns.length - 1] + dx);
      rows.push(rows[rows.length - 1] + dy);
    }
  }
  return { columns: Int32Array.from(columns), rows: Int32Array.from(rows) };
}
