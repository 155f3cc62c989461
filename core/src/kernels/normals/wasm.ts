import { edgeTable } from '../../raster/edges.ts';
import { CROSS } from '../../raster/gradient.ts';
import { Raster } from '../../raster/raster.ts';
import { BLOCK, vectors } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { makingNormals, reference } from './reference.ts';

/** Entries of the edge tables beyond each end. */
const BEYOND = 2;
/** Which kernel, as the compiled module knows it. */
const SHARP = 0;
const CROSSED = 1;

const wasmMakingNormals = (call: Call): typeof makingNormals =>
  function* (
    plane,
    { width, height },
    depthShare,
    strength,
    kernel,
    normalY,
    edges,
    { from: first, to } = { from: 0, to: height },
    out = Raster.filled(width, height, 3),
  ) {
    const columns = edgeTable(width, BEYOND, BEYOND, edges.x);
    const rows = edgeTable(height, BEYOND, BEYOND, edges.y);
    const [side, centre] = kernel === 'sharp' ? [0, 0] : CROSS[kernel];
    const scale = depthShare * Math.max(width, height) * strength;
    const line = 4 * width;
    const most = Math.max(1, Math.floor(BLOCK / width));
    // Rows of a block follow one another from two above its first to two below its last.
    const local = Int32Array.from({ length: most + 2 * BEYOND }, (_, k) => k - BEYOND);
    const block = (from: number, count: number) =>
      call((exports, arena) => {
        // Vectors at the end of a row look at, and write, a little more than it.
        const bytes = vectors(most * width) + 32;
        const lines = 3 * (line + 32);
        const field = bytes + 2 * BEYOND * line;
        arena.begin(field + 3 * bytes + columns.byteLength + local.byteLength + lines + 256);
        const source = arena.room(field);
        const made = [arena.room(bytes), arena.room(bytes), arena.room(bytes)];
        const [gx, gy, nz] = made;
        const [atColumns, atRows, atLines] = [
          arena.integers(columns),
          arena.integers(local),
          arena.room(lines),
        ];
        for (let k = 0; k < count + 2 * BEYOND; k++) {
          const row = rows[from + k] * width;
          arena.view(source + k * line, width).set(plane.subarray(row, row + width));
        }
        exports.gradient(
          ...[source + BEYOND * line, gx, gy, width, count, atColumns, atRows, atLines],
          ...[kernel === 'sharp' ? SHARP : CROSSED, side, centre],
        );
        exports.unitNormals(gx, gy, nz, line * count, scale, normalY === 'up' ? 1 : -1);
        for (const [c, at] of made.entries()) out.planes[c].set(arena.view(at, width * count), from * width);
      });
    for (let from = first; from < to; from += most) {
      block(from, Math.min(most, to - from));
      yield;
    }
    return out;
  };

export const wasm = ({ call }: WasmHost): typeof reference => ({
  makingNormals: wasmMakingNormals(call),
});
