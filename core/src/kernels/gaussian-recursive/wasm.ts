import type { Arena } from '../host/arena.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { Recursion, Way } from './reference.ts';
import { recursiveColumns, recursiveRows, type reference } from './reference.ts';

/** Lines that go side by side. */
const LINES = 4;
/** Bytes of what the recursion holds of this many lines: their last four values. */
const STATE = 8 * 4 * LINES;
/** Bytes of a gain and four feedbacks. */
const COEFFICIENTS = 8 * 5;

/** Bytes of a way, and of what it takes to go `lines` lines along it. */
const bytesOf = ({ samples }: Way, lines: number) =>
  samples.byteLength + 8 * lines * samples.length + STATE + COEFFICIENTS + 256;

/** A way, room to go `lines` lines along it, and the recursion, in the order in which the kernels take them. */
function put({ samples, before, warmUp }: Way, lines: number, arena: Arena, by: Recursion): number[] {
  const at = arena.integers(samples);
  const room = arena.room(8 * lines * samples.length);
  const state = arena.room(STATE);
  const coefficients = arena.room(COEFFICIENTS);
  arena.doubles(coefficients, Float64Array.of(by.gain, ...by.feedback));
  return [at, samples.length, before, warmUp, room, state, coefficients];
}

const wasmRecursiveRows =
  (call: Call): typeof recursiveRows =>
  (source, target, width, way, recursion, band) => {
    const rows = band.to - band.from;
    if (rows < LINES) return recursiveRows(source, target, width, way, recursion, band);
    const [start, end] = [band.from * width, band.to * width];
    call((exports, arena) => {
      arena.begin(8 * (end - start) + bytesOf(way, LINES));
      const from = arena.floats(source.subarray(start, end));
      const to = rows % LINES === 0 ? from : arena.room(4 * (end - start));
      exports.recursiveRows(from, to, width, rows, ...put(way, LINES, arena, recursion));
      target.set(arena.view(to, end - start), start);
    });
  };

const wasmRecursiveColumns =
  (call: Call): typeof recursiveColumns =>
  (plane, width, way, recursion, band) => {
    const across = band.to - band.from;
    if (across < LINES) return recursiveColumns(plane, width, way, recursion, band);
    const height = plane.length / width;
    call((exports, arena) => {
      const strip = across * height;
      arena.begin(8 * strip + bytesOf(way, 4 * LINES));
      const from = arena.room(4 * strip);
      const to = across % (4 * LINES) === 0 ? from : arena.room(4 * strip);
      const before = arena.view(from, strip);
      for (let y = 0; y < height; y++)
        before.set(plane.subarray(y * width + band.from, y * width + band.to), y * across);
      exports.recursiveColumns(from, to, across, height, ...put(way, 4 * LINES, arena, recursion));
      const after = arena.view(to, strip);
      for (let y = 0; y < height; y++)
        plane.set(after.subarray(y * across, (y + 1) * across), y * width + band.from);
    });
  };

export const wasm = ({ call }: WasmHost): typeof reference => ({
  recursiveRows: wasmRecursiveRows(call),
  recursiveColumns: wasmRecursiveColumns(call),
});
