import { FEATURES } from '../stations/join/score/nearest.ts';
import type { Kernels } from './kernels.ts';
import type { Call } from './wasm.ts';

export const wasmAddSteps =
  (call: Call): Kernels['addSteps'] =>
  (plane, width, columns) =>
    call((exports, arena) => {
      const rows = plane.length / width;
      const count = Math.max(0, rows - 1);
      arena.begin(plane.byteLength + columns.byteLength + 8 * count + 128);
      const source = arena.floats(plane);
      const sums = arena.room(columns.byteLength);
      const between = arena.room(8 * count);
      arena.doubles(sums, columns);
      exports.addSteps(source, width, rows, sums, between);
      columns.set(arena.doublesAt(sums, width));
      return arena.doublesAt(between, count);
    });

export const wasmNearestPatches =
  (call: Call): Kernels['nearestPatches'] =>
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
