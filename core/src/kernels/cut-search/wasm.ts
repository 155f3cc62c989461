import type { Call, WasmHost } from '../host/wasm.ts';
import type { reference, searchCut } from './reference.ts';
import { wayTo } from './reference.ts';

/** What the heap begins with; it grows. */
const HEAP_BYTES = 2 ** 20;

const wasmSearchCut =
  (call: Call): typeof searchCut =>
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

export const wasm = ({ call }: WasmHost): typeof reference => ({
  searchCut: wasmSearchCut(call),
});
