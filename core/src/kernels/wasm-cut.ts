import { FLAT, LENGTH_COST } from '../stations/join/cut-costs.ts';
import { wayTo } from '../stations/join/cut-search.ts';
import type { Kernels } from './kernels.ts';
import type { Call } from './wasm.ts';

export const wasmCutCosts =
  (call: Call): Kernels['cutCosts'] =>
  ({ width, length, a, b }) =>
    call((exports, arena) => {
      const count = width * length;
      const bytes = 4 * count;
      arena.begin((2 * a.length + 3) * bytes + 512);
      const put = (planes: Float32Array[]) => {
        const all = arena.room(planes.length * bytes + 16);
        for (const [c, plane] of planes.entries()) arena.view(all + c * bytes, count).set(plane);
        exports.seenPlanes(all, planes.length * bytes);
        return all;
      };
      const zeros = () => {
        const at = arena.room(bytes + 16);
        arena.view(at, count).fill(0);
        return at;
      };
      const [atA, atB] = [put(a), put(b)];
      const [distance, upright, level] = [arena.room(bytes + 16), zeros(), zeros()];
      exports.cutCosts(atA, atB, a.length, width, length, distance, upright, level, FLAT, LENGTH_COST);
      return { upright: arena.read(upright, count), level: arena.read(level, count) };
    });

/** What the heap begins with; it grows. */
const HEAP_BYTES = 2 ** 20;

export const wasmSearchCut =
  (call: Call): Kernels['searchCut'] =>
  ({ upright, level }, { width, length, low, high, rows, from: starts, to, allowed }) =>
    call((exports, arena) => {
      const nodes = (width + 1) * (rows + 1);
      const begun = Int32Array.from(starts);
      arena.begin(2 * upright.byteLength + 13 * nodes + begun.byteLength + HEAP_BYTES + 512);
      const from = arena.room(4 * nodes);
      const end = exports.searchCut(
        arena.floats(upright),
        arena.floats(level),
        arena.room(8 * nodes),
        from,
        allowed ? arena.bytes(allowed) : 0,
        arena.integers(begun),
        begun.length,
        rows,
        to ?? -1,
        width,
        length,
        low,
        high,
        arena.mark(),
      );
      return wayTo(end, arena.integersAt(from, nodes));
    });
