import { type Edges, edgeIndex, edgeTable } from '../../../raster/edges.ts';

interface Level {
  width: number;
  height: number;
  /** 1 unknown, 2 given beside the unknown, 0 neither. */
  kind: Uint8Array;
  value: Float32Array;
}

const UNKNOWN = 1;
const GIVEN = 2;
const SWEEPS = 14;
/** Over-relaxation (Young 1954). */
const PUSH = 1.5;
const COARSEST_SWEEPS = 60;

/** Half the size: a cell is given where any pixel in it is, by their mean; else unknown where any is. */
function coarser({ width, height, kind, value }: Level): Level {
  const [w, h] = [(width + 1) >> 1, (height + 1) >> 1];
  const sums = new Float32Array(w * h);
  const counts = new Uint8Array(w * h);
  const next = new Uint8Array(w * h);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const k = (y >> 1) * w + (x >> 1);
      if (kind[i] === GIVEN) {
        sums[k] += value[i];
        counts[k]++;
        next[k] = GIVEN;
      } else if (kind[i] === UNKNOWN && next[k] === 0) next[k] = UNKNOWN;
    }
  }
  for (let k = 0; k < sums.length; k++) if (counts[k] > 0) sums[k] /= counts[k];
  return { width: w, height: h, kind: next, value: sums };
}

/** Starts the unknown pixels of `fine` from the coarse answer, bilinearly over cells that hold any. */
function start(fine: Level, coarse: Level, edges: Edges): void {
  const { width, height, kind, value } = fine;
  for (let y = 0; y < height; y++) {
    const near = y >> 1;
    const far = edgeIndex(near + (y & 1 ? 1 : -1), coarse.height, edges.y);
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (kind[i] !== UNKNOWN) continue;
      const p = x >> 1;
      const q = edgeIndex(p + (x & 1 ? 1 : -1), coarse.width, edges.x);
      let sum = 0;
      let weight = 0;
      for (const [column, row, share] of [
        [p, near, 9],
        [q, near, 3],
        [p, far, 3],
        [q, far, 1],
      ] as const) {
        const k = row * coarse.width + column;
        if (coarse.kind[k] === 0) continue;
        sum += share * coarse.value[k];
        weight += share;
      }
      value[i] = sum / weight;
    }
  }
}

/** Over an edge that mirrors a pixel is its own neighbour, so nothing flows there. */
function sweep(
  { width, height, kind, value }: Level,
  columns: Int32Array,
  edges: Edges,
  colour: 0 | 1,
): void {
  for (let y = 0; y < height; y++) {
    const row = y * width;
    const up = edgeIndex(y - 1, height, edges.y) * width;
    const down = edgeIndex(y + 1, height, edges.y) * width;
    for (let x = (y + colour) & 1; x < width; x += 2) {
      const i = row + x;
      if (kind[i] !== UNKNOWN) continue;
      const around = value[row + columns[x]] + value[row + columns[x + 2]] + value[up + x] + value[down + x];
      value[i] += PUSH * (around / 4 - value[i]);
    }
  }
}

/**
 * A membrane stretched over the pixels where `inside` is not 0, fixed to `values` on the pixels around them
 * (Laplace's equation; over an edge that mirrors nothing flows, one that wraps meets the other side). Returns `values` with the inside filled; where
 * nothing around is given, with zeros. From coarse to fine, each level started from the one before (cascadic
 * multigrid, Bornemann & Deuflhard 1996).
 */
export function membrane(
  values: Float32Array,
  inside: Uint8Array,
  width: number,
  height: number,
  edges: Edges,
): Float32Array {
  const columns = edgeTable(width, 1, 1, edges.x);
  const kind = new Uint8Array(values.length);
  const filled = values.slice();
  let given = 0;
  let unknown = 0;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (inside[i]) {
        kind[i] = UNKNOWN;
        filled[i] = 0;
        unknown++;
        continue;
      }
      const row = y * width;
      const beside =
        inside[row + columns[x]] ||
        inside[row + columns[x + 2]] ||
        inside[edgeIndex(y - 1, height, edges.y) * width + x] ||
        inside[edgeIndex(y + 1, height, edges.y) * width + x];
      if (!beside) continue;
      kind[i] = GIVEN;
      given++;
    }
  }
  if (given === 0 || unknown === 0) return filled;
  const levels: Level[] = [{ width, height, kind, value: filled }];
  while (levels[levels.length - 1].kind.includes(UNKNOWN)) {
    const last = levels[levels.length - 1];
    if (last.width === 1 && last.height === 1) break;
    levels.push(coarser(last));
  }
  for (let k = levels.length - 1; k >= 0; k--) {
    if (k + 1 < levels.length) start(levels[k], levels[k + 1], edges);
    const across = edgeTable(levels[k].width, 1, 1, edges.x);
    for (let n = 0; n < (k > levels.length - 4 ? COARSEST_SWEEPS : SWEEPS); n++) {
      sweep(levels[k], across, edges, 0);
      sweep(levels[k], across, edges, 1);
    }
  }
  return filled;
}
