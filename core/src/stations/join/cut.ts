import type { Costs } from '../../kernels/cut-costs/reference.ts';
import type { Strip } from '../../kernels/cut-costs/strip.ts';
import type { CutSearch } from '../../kernels/cut-search/reference.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import type { Steps } from '../../work/steps.ts';

/** Corner positions of a cut, from the strip's start to its end: column 0…width, row 0…length. */
export interface CutPath {
  columns: Int32Array;
  rows: Int32Array;
}

/** Share of the strip, at each side, that the cut keeps out of. */
export const KEEP_OUT = 0.18;

/** Columns between which a cut stays. */
function columnsOf(width: number): { low: number; high: number } {
  return {
    low: Math.max(1, Math.ceil(width * KEEP_OUT)),
    high: Math.min(width - 1, Math.floor(width * (1 - KEEP_OUT))),
  };
}

type Wanted = Pick<CutSearch, 'rows' | 'from' | 'to' | 'allowed'>;

function shortest({ width, length }: Strip, costs: Costs, wanted: Wanted): CutPath {
  const nodes = KERNELS.searchCut(costs, { width, length, ...columnsOf(width), ...wanted });
  if (nodes.length === 0) throw new Error('The cut found no way through its strip.');
  const across = width + 1;
  return {
    columns: nodes.map((node) => node % across),
    rows: nodes.map((node) => Math.floor(node / across)),
  };
}

/**
 * The true minimum cut between the two copies in a strip: a shortest path over pixel corners in the
 * planar dual, backward moves included, so that it may wind round stones (Kwatra et al. 2003 for the
 * costs). Cyclic strips: the path is unrolled twice, and run again from where it crosses the middle,
 * so that it ends where it began (Reif 1983).
 */
export function* minimumCut(strip: Strip, cyclic: boolean): Steps<CutPath> {
  const costs = KERNELS.cutCosts(strip);
  yield;
  const { low, high } = columnsOf(strip.width);
  const columns = Array.from({ length: high - low + 1 }, (_, k) => low + k);
  if (!cyclic) return shortest(strip, costs, { rows: strip.length, from: columns, to: null });
  const unrolled = shortest(strip, costs, { rows: 2 * strip.length, from: columns, to: null });
  yield;
  const middle = unrolled.columns[unrolled.rows.indexOf(strip.length)];
  return shortest(strip, costs, { rows: strip.length, from: [middle], to: middle });
}

/**
 * A cut decided at another size, found again within a narrow band around it, so that it follows the
 * same way through finer pixels. `scale` is this strip's size over the decided one's.
 */
export function* refineCut(strip: Strip, decided: CutPath, scale: number, cyclic: boolean): Steps<CutPath> {
  const across = strip.width + 1;
  const reach = Math.max(2, Math.ceil(1.5 * scale));
  const allowed = new Uint8Array(across * (strip.length + 1));
  const { low, high } = columnsOf(strip.width);
  const place = (column: number) => Math.min(high, Math.max(low, Math.round(column * scale)));
  for (let k = 0; k < decided.columns.length; k++) {
    const cx = place(decided.columns[k]);
    const cy = Math.round(decided.rows[k] * scale);
    for (let y = Math.max(0, cy - reach); y <= Math.min(strip.length, cy + reach); y++) {
      const from = y * across + Math.max(low, cx - reach);
      allowed.fill(1, from, y * across + Math.min(high, cx + reach) + 1);
    }
  }
  yield;
  const costs = KERNELS.cutCosts(strip);
  yield;
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
