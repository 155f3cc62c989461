import { edgeTable } from '../../raster/edges.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import { inFours } from '../resample-row/wasm.ts';
import type { reference, resampleBlock } from './reference.ts';
import { alongRows, lookedAt } from './reference.ts';

/** Planes that go side by side in one vector. */
const TOGETHER = 4;
/** Columns that are made at once, so that what the first pass leaves stays close at hand. */
const ACROSS = 128;

/** Copies rows of a plane, `wide` columns from `low` on, to both sides over its edges where they reach so far. */
function copyRows(
  to: Float32Array,
  plane: Float32Array,
  width: number,
  rowAt: Int32Array,
  columnAt: Int32Array,
  low: number,
): void {
  const wide = columnAt.length;
  const before = Math.min(wide, Math.max(0, -low));
  const end = Math.max(before, Math.min(wide, width - low));
  for (let y = 0; y < rowAt.length; y++) {
    const row = rowAt[y] * width;
    const at = y * wide;
    for (let x = 0; x < before; x++) to[at + x] = plane[row + columnAt[x]];
    to.set(plane.subarray(row + low + before, row + low + end), at + before);
    for (let x = end; x < wide; x++) to[at + x] = plane[row + columnAt[x]];
  }
}

const wasmResampleBlock =
  (call: Call): typeof resampleBlock =>
  ({ width, height, planes }, edges, grid, table, block, into) =>
    call((exports, arena) => {
      const { taps, weights } = inFours(table);
      const { from, along, lean } = alongRows(grid);
      const across = 4 * Math.ceil(block.width / 4);
      // What fills the vectors up is looked at too, and weighed by nothing.
      const { rows, columns } = lookedAt(grid, table, { ...block, width: across });
      const wide = columns.count + taps - table.taps;
      const count = wide * rows.count;
      const outBytes = 4 * across * block.height;
      const step = Math.min(ACROSS, across);
      arena.begin(TOGETHER * (4 * count + outBytes + 4 * step * rows.count) + weights.byteLength + 1024);
      const source = arena.room(4 * TOGETHER * count);
      const middle = arena.room(4 * TOGETHER * step * rows.count);
      const out = arena.room(TOGETHER * outBytes);
      const held = arena.floats(weights);
      const columnAt = edgeTable(width, -columns.low, columns.low + wide - width, edges.x);
      const rowAt = edgeTable(height, -rows.low, rows.low + rows.count - height, edges.y);
      for (let first = 0; first < planes.length; first += TOGETHER) {
        const some = planes.slice(first, first + TOGETHER);
        for (const [c, plane] of some.entries())
          copyRows(arena.view(source + 4 * c * count, count), plane, width, rowAt, columnAt, columns.low);
        for (let x = 0; x < across; x += step) {
          const part = { ...block, x: block.x + x, width: Math.min(step, across - x) };
          const seen = lookedAt(grid, table, part).rows;
          exports.resampleAlong(
            ...[source + 4 * wide * (seen.low - rows.low), 4 * count, some.length, wide, seen.count],
            ...[middle, part.width, from, along, lean, part.x, seen.low, columns.low + table.before],
            ...[held, taps],
          );
          exports.resampleDown(
            ...[middle, part.width, block.height, some.length, out + 4 * x, outBytes, 4 * across],
            ...[grid.originY, grid.rightY, grid.downY, part.x, block.y, seen.low + table.before],
            ...[held, table.taps, taps],
          );
        }
        for (let c = 0; c < some.length; c++) {
          const plane = into.planes[first + c];
          const made = arena.view(out + c * outBytes, across * block.height);
          if (across === into.width) plane.set(made, block.y * across);
          else
            for (let y = 0; y < block.height; y++)
              plane.set(
                made.subarray(across * y, across * y + block.width),
                (block.y + y) * into.width + block.x,
              );
        }
      }
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({
  resampleBlock: wasmResampleBlock(call),
});
