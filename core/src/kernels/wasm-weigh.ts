import type { Taps } from '../raster/weigh.ts';
import type { Kernels } from './kernels.ts';
import type { Call } from './wasm.ts';

/** Taps of a vector. */
const FOUR = 4;

/** The same taps with nothing added until their count is a whole number of vectors. */
function inFours({ first, count, weights }: Taps): Taps {
  const more = Math.ceil(count / FOUR) * FOUR;
  if (more === count) return { first, count, weights };
  const out = new Float32Array(first.length * more);
  for (let i = 0; i < first.length; i++) out.set(weights.subarray(i * count, (i + 1) * count), i * more);
  return { first, count: more, weights: out };
}

export const wasmWeighColumns =
  (call: Call): Kernels['weighColumns'] =>
  (plane, width, height, taps, columns) => {
    const { first, count, weights } = inFours(taps);
    const toWidth = first.length;
    // What lies beyond the row on either side, as the taps' own table has it.
    const before = Math.max(0, -first[0]);
    const after = Math.max(0, first[toWidth - 1] + count - width);
    const table = new Int32Array(before + width + after);
    for (let i = 0; i < toWidth; i++) {
      for (let k = 0; k < taps.count; k++) table[before + first[i] + k] = columns[i * taps.count + k];
    }
    return call((exports, arena) => {
      const bytes = 4 * toWidth * height;
      const line = 4 * table.length;
      arena.begin(
        plane.byteLength + bytes + first.byteLength + weights.byteLength + table.byteLength + line + 256,
      );
      const source = arena.floats(plane);
      const out = arena.room(bytes);
      exports.weighColumns(
        source,
        out,
        width,
        height,
        toWidth,
        arena.integers(first),
        count,
        arena.floats(weights),
        arena.integers(table),
        before,
        after,
        arena.room(line),
      );
      return arena.read(out, toWidth * height);
    });
  };

export const wasmWeighRows =
  (call: Call): Kernels['weighRows'] =>
  (plane, width, { first, count, weights }, rows) =>
    call((exports, arena) => {
      const length = width * first.length;
      arena.begin(plane.byteLength + 4 * length + weights.byteLength + rows.byteLength + 128);
      const source = arena.floats(plane);
      const out = arena.room(4 * length);
      exports.weighRows(source, out, width, first.length, count, arena.floats(weights), arena.integers(rows));
      return arena.read(out, length);
    });
