import { BLOCK, vectors } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { blendPlanes, reference } from './reference.ts';

/** Bytes that the module works in: six parts of 2048. */
const SPARE = 6 * 2048;

/** Whether nothing of a block is covered, so that all of it stays as it is. */
function isBare(cover: Float32Array, from: number, length: number): boolean {
  if (cover.length === 1) return cover[0] <= 0;
  return cover.subarray(from, from + length).every((share) => share <= 0);
}

const wasmBlendPlanes =
  (call: Call): typeof blendPlanes =>
  (below, above, cover, rule, isEncoded) =>
    call((exports, arena) => {
      const count = below[0].length;
      const room = vectors(Math.min(BLOCK, count));
      arena.begin(7 * room + SPARE + 8 * 16);
      const [at, over, share] = [arena.room(3 * room), arena.room(3 * room), arena.room(room)];
      const spare = arena.room(SPARE);
      const put = (plane: Float32Array, to: number, from: number, length: number) => {
        // One value for all is put into one whole vector.
        if (plane.length === 1) arena.view(to, 4).fill(plane[0]);
        else arena.view(to, length).set(plane.subarray(from, from + length));
      };
      const flags = (isEncoded ? 1 : 0) | (above[0].length === 1 ? 2 : 0) | (cover.length === 1 ? 4 : 0);
      const planes = rule.kind === 'colours' ? 3 : below.length;
      for (let from = 0; from < count; from += BLOCK) {
        const length = Math.min(BLOCK, count - from);
        if (isBare(cover, from, length)) continue;
        for (let c = 0; c < planes; c++) {
          const k = Math.min(c, below.length - 1);
          put(below[k], at + c * room, from, length);
          put(above[k], over + c * room, from, length);
        }
        // A value beyond the last one has no effect where the step is a whole vector.
        put(cover, share, from, length);
        exports.blendPlanes(at, over, share, room, vectors(length), planes, rule.code, flags, spare);
        for (const [c, plane] of below.entries()) plane.set(arena.view(at + c * room, length), from);
      }
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({ blendPlanes: wasmBlendPlanes(call) });
