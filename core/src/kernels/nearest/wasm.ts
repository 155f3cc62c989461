import type { Call, WasmHost } from '../host/wasm.ts';
import type { nearestPatches, reference } from './reference.ts';
import { FEATURES } from './reference.ts';

const wasmNearestPatches =
  (call: Call): typeof nearestPatches =>
  (asked, bank, apart) =>
    call((exports, arena) => {
      const count = asked.corners.length / 2;
      const bytes = asked.features.byteLength + bank.features.byteLength + bank.corners.byteLength;
      arena.begin(bytes + 256);
      const queries = arena.floats(asked.features);
      const known = arena.floats(bank.features);
      const corners = arena.integers(bank.corners);
      const found = arena.room(16);
      const which = new Int32Array(count);
      const distance = new Float32Array(count);
      for (let n = 0; n < count; n++) {
        which[n] = exports.nearestPatch(
          queries + 4 * FEATURES * n,
          known,
          corners,
          bank.corners.length / 2,
          asked.corners[2 * n],
          asked.corners[2 * n + 1],
          apart,
          found,
        );
        distance[n] = Math.sqrt(arena.view(found, 1)[0]);
      }
      return { which, distance };
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({
  nearestPatches: wasmNearestPatches(call),
});
