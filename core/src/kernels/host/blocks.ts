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
