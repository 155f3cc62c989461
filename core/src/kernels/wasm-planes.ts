import { PLANES } from '../raster/pool.ts';
import type { Arena } from './arena.ts';
import type { Kernels } from './kernels.ts';
import type { Call, Exports } from './wasm.ts';

/** Values that go through at once: they stay near the processor, and memory does not grow with a plane. */
export const BLOCK = 2 ** 16;

/** Bytes of whole vectors that hold so many floats. */
export const vectors = (count: number) => (4 * count + 15) & ~15;

/** A plane changed value by value where it lies in the kernels' memory, block by block, into a new one. */
export function byBlocks(
  call: Call,
  plane: Float32Array,
  change: (exports: Exports, at: number, bytes: number) => void,
): Float32Array {
  const out = PLANES.take(plane.length);
  call((exports, arena) => {
    arena.begin(vectors(BLOCK));
    const at = arena.room(vectors(BLOCK));
    for (let from = 0; from < plane.length; from += BLOCK) {
      const block = plane.subarray(from, from + BLOCK);
      arena.view(at, block.length).set(block);
      change(exports, at, vectors(block.length));
      out.set(arena.view(at, block.length), from);
    }
  });
  return out;
}

export const wasmLogPlane =
  (call: Call): Kernels['logPlane'] =>
  (plane, floor) =>
    byBlocks(call, plane, (exports, at, bytes) => exports.logPlane(at, bytes, floor));

export const wasmSumPlanes =
  (call: Call): Kernels['sumPlanes'] =>
  (planes, weights, range = {}, out = PLANES.take(planes[0].length)) => {
    const { base = 0, low = Number.NEGATIVE_INFINITY, high = Number.POSITIVE_INFINITY } = range;
    call((exports, arena: Arena) => {
      arena.begin((planes.length + 1) * vectors(BLOCK) + vectors(weights.length));
      const by = arena.floats(Float32Array.from(weights));
      const at = planes.map(() => arena.room(vectors(BLOCK)));
      const sum = arena.room(vectors(BLOCK));
      for (let from = 0; from < out.length; from += BLOCK) {
        const count = Math.min(BLOCK, out.length - from);
        const bytes = vectors(count);
        for (const [k, plane] of planes.entries()) {
          arena.view(at[0] + k * bytes, count).set(plane.subarray(from, from + count));
        }
        exports.sumPlanes(at[0], bytes, planes.length, by, sum, base, low, high);
        out.set(arena.view(sum, count), from);
      }
    });
    return out;
  };

export const wasmRaisePlane =
  (call: Call): Kernels['raisePlane'] =>
  (plane, other) =>
    call((exports, arena) => {
      arena.begin(2 * vectors(plane.length));
      const at = arena.floats(plane);
      exports.raisePlane(at, arena.floats(other), vectors(plane.length));
      plane.set(arena.view(at, plane.length));
    });

export const wasmDivideRows =
  (call: Call): Kernels['divideRows'] =>
  (from, out, { width, terms, start, step }, shade) =>
    call((exports, arena) => {
      // The last vector of a row may reach into the next one, which is written after it.
      arena.begin((shade ? 3 : 2) * (vectors(from.length) + 16) + vectors(terms.length) + 64);
      const source = arena.floats(from);
      const light = arena.floats(terms);
      const shades = shade ? arena.floats(shade) : 0;
      const made = arena.room(vectors(from.length) + 16);
      exports.divideRows(source, made, width, from.length / width, light, start, step, shades);
      out.set(arena.view(made, out.length));
    });

export const wasmScreenCodes =
  (call: Call): Kernels['screenCodes'] =>
  (planes, as) => {
    const { length } = planes[0];
    const out = new Uint8ClampedArray(4 * length);
    const { gain, base } = as === 'colour' ? { gain: 1, base: 0 } : as;
    call((exports, arena) => {
      arena.begin((planes.length + 1) * vectors(BLOCK));
      const at = planes.map(() => arena.room(vectors(BLOCK)));
      const [red, green, blue] = at.length === 1 ? [at[0], at[0], at[0]] : at;
      const made = arena.room(vectors(BLOCK));
      for (let from = 0; from < length; from += BLOCK) {
        const count = Math.min(BLOCK, length - from);
        for (const [c, plane] of planes.entries()) {
          arena.view(at[c], count).set(plane.subarray(from, from + count));
        }
        exports.screenCodes(red, green, blue, made, vectors(count), Number(as === 'colour'), gain, base);
        out.set(arena.codes(made, 4 * count, 8), 4 * from);
      }
    });
    return out;
  };
