import type { Call, WasmHost } from '../host/wasm.ts';
import type { reference, Taps, weighBand } from './reference.ts';

/** Taps of a vector. */
const FOUR = 4;

const inWhole = new WeakMap<Taps, Taps>();

/** The same taps with nothing added until their count is a whole number of vectors. */
function inFours(taps: Taps): Taps {
  const { first, count, weights } = taps;
  const more = Math.ceil(count / FOUR) * FOUR;
  if (more === count) return taps;
  const kept = inWhole.get(taps);
  if (kept) return kept;
  const out = new Float32Array(first.length * more);
  for (let i = 0; i < first.length; i++) out.set(weights.subarray(i * count, (i + 1) * count), i * more);
  const made = { first, count: more, weights: out };
  inWhole.set(taps, made);
  return made;
}

/** Columns of a row with what lies beyond it on either side. */
interface Line {
  table: Int32Array;
  before: number;
  after: number;
}

const lines = new WeakMap<Int32Array, Line>();

/** The row that so many vectors of taps look at, with what they look at beyond it as the taps' own table has it. */
function lineOf({ first, count }: Taps, whole: number, width: number, columns: Int32Array): Line {
  const kept = lines.get(columns);
  if (kept) return kept;
  const last = first.length - 1;
  const before = Math.max(0, -first[0]);
  const after = Math.max(0, first[last] + whole - width);
  const table = new Int32Array(before + width + after);
  for (let i = 0; i <= last; i++) {
    for (let k = 0; k < count; k++) table[before + first[i] + k] = columns[i * count + k];
  }
  const made = { table, before, after };
  lines.set(columns, made);
  return made;
}

const wasmWeighBand =
  (call: Call): typeof weighBand =>
  (plane, width, across, down, out, at) =>
    call((exports, arena) => {
      const { first, count, weights } = inFours(across.taps);
      const { table, before, after } = lineOf(across.taps, count, width, across.samples);
      const height = plane.length / width;
      const toWidth = first.length;
      const toHeight = down.taps.first.length;
      arena.begin(
        plane.byteLength +
          4 * toWidth * (height + toHeight) +
          first.byteLength +
          weights.byteLength +
          8 * table.length +
          2 * down.samples.byteLength +
          256,
      );
      const source = arena.floats(plane);
      const weighed = arena.room(4 * toWidth * height);
      exports.weighColumns(
        ...[source, weighed, width, height, toWidth, arena.integers(first), count, arena.floats(weights)],
        ...[arena.integers(table), before, after, arena.room(4 * table.length)],
      );
      const made = arena.room(4 * toWidth * toHeight);
      exports.weighRows(
        ...[weighed, made, toWidth, toHeight, down.taps.count, arena.floats(down.taps.weights)],
        arena.integers(down.samples),
      );
      out.set(arena.view(made, toWidth * toHeight), at);
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({
  weighBand: wasmWeighBand(call),
});
