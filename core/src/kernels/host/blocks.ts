import { PLANES } from '../../memory/pool.ts';
import type { Call, Exports } from './wasm.ts';

/** Values that go through at once: they stay near the processor, and memory does not grow with a plane. */
export const BLOCK = 2 ** 16;

/** Bytes of whole vectors that hold this many floats. */
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

/**
 * A plane changed in place, block by block, with others that are as long or have one value for all. `change` is told where the
 * block lies, where those of the others do, and the step of each: 0 where one vector of the same values holds for all.
 */
export function inPlace(
  call: Call,
  plane: Float32Array,
  others: readonly Float32Array[],
  change: (
    exports: Exports,
    at: number,
    others: readonly number[],
    bytes: number,
    steps: readonly (0 | 1)[],
  ) => void,
): void {
  const steps = others.map((other) => (other.length === 1 && plane.length !== 1 ? 0 : 1));
  call((exports, arena) => {
    const room = vectors(Math.min(BLOCK, plane.length));
    arena.begin((1 + others.length) * room);
    const at = arena.room(room);
    const places = others.map(() => arena.room(room));
    for (let from = 0; from < plane.length; from += BLOCK) {
      const block = plane.subarray(from, from + BLOCK);
      arena.view(at, block.length).set(block);
      for (const [k, other] of others.entries()) {
        if (steps[k] === 0) arena.view(places[k], 4).fill(other[0]);
        else arena.view(places[k], block.length).set(other.subarray(from, from + block.length));
      }
      change(exports, at, places, vectors(block.length), steps);
      block.set(arena.view(at, block.length));
    }
  });
}

/**
 * Planes made from others that are as long, value by value, block by block. `make` gets the places of the blocks of `planes`, one
 * behind the other, the bytes of each and how many values; it leaves what it makes in the places of the first of them.
 */
export function onBlocks(
  call: Call,
  planes: readonly Float32Array[],
  into: readonly Float32Array[],
  make: (exports: Exports, at: readonly number[], bytes: number, count: number) => void,
): void {
  const { length } = planes[0];
  call((exports, arena) => {
    const room = vectors(Math.min(BLOCK, length));
    arena.begin(planes.length * room);
    const at = planes.map(() => arena.room(room));
    for (let from = 0; from < length; from += BLOCK) {
      const count = Math.min(BLOCK, length - from);
      for (const [k, plane] of planes.entries()) {
        arena.view(at[k], count).set(plane.subarray(from, from + count));
      }
      make(exports, at, room, count);
      for (const [k, plane] of into.entries()) plane.set(arena.view(at[k], count), from);
    }
  });
}
