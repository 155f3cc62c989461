import { type Edges, edgeTable } from './edges.ts';
import type { Sides } from './sides.ts';

/** Connected parts of a mask: the part of each pixel, −1 where it is of none, and how many pixels each part has. */
export interface Connected {
  labels: Int32Array;
  sizes: number[];
}

/** Steps to four neighbours, and to those over the corners. */
const SIDE_STEPS = [
  [0, -1],
  [-1, 0],
  [1, 0],
  [0, 1],
];
const CORNER_STEPS = [
  [-1, -1],
  [1, -1],
  [-1, 1],
  [1, 1],
];

/** The connected parts of where `mask` is `value`, by four neighbours, or by eight `withDiagonals`, over the tile's edges. */
export function connectedParts(
  mask: Uint8Array,
  value: number,
  { width, height }: Sides,
  edges: Edges,
  withDiagonals: boolean,
): Connected {
  const columns = edgeTable(width, 1, 1, edges.x);
  const rows = edgeTable(height, 1, 1, edges.y);
  const steps = withDiagonals ? [...SIDE_STEPS, ...CORNER_STEPS] : SIDE_STEPS;
  const across = Int32Array.from(steps, ([x]) => x + 1);
  const down = Int32Array.from(steps, ([, y]) => y + 1);
  const labels = new Int32Array(mask.length).fill(-1);
  const sizes: number[] = [];
  // Every pixel is put there once.
  const stack = new Int32Array(mask.length);
  for (let start = 0; start < mask.length; start++) {
    if (mask[start] !== value || labels[start] >= 0) continue;
    const label = sizes.length;
    let size = 0;
    let top = 0;
    labels[start] = label;
    stack[top++] = start;
    while (top > 0) {
      const i = stack[--top];
      size++;
      const x = i % width;
      const y = (i - x) / width;
      for (let k = 0; k < across.length; k++) {
        const j = rows[y + down[k]] * width + columns[x + across[k]];
        if (mask[j] !== value || labels[j] >= 0) continue;
        labels[j] = label;
        stack[top++] = j;
      }
    }
    sizes.push(size);
  }
  return { labels, sizes };
}
