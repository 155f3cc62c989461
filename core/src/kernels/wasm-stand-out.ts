import { BINS } from '../stations/proof/stand-out.ts';
import type { Kernels } from './kernels.ts';
import type { Call } from './wasm.ts';

export const wasmStandOut =
  (call: Call): Kernels['standOut'] =>
  (plane, other, weight, floor) =>
    call((exports, arena) => {
      const { length } = plane;
      arena.begin(2 * plane.byteLength + 4 * BINS + 64);
      const at = arena.floats(plane);
      const beside = arena.floats(other);
      exports.standOut(at, beside, (length + 3) & ~3, length, weight, floor, arena.room(4 * BINS), BINS);
      return arena.read(at, length);
    });
