import { edgeTable } from '../../raster/edges.ts';
import type { Arena } from '../host/arena.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { blendChannel, reference } from './reference.ts';

/** Floats, and after them what a whole vector may still look at. */
function vectors(arena: Arena, values: Float32Array): number {
  const at = arena.floats(values);
  arena.room(16);
  return at;
}

const wasmBlendChannel =
  (call: Call): typeof blendChannel =>
  (a, b, width, height, masks, edges) => {
    const levels = masks.length - 1;
    const tables = (n: number, edge: typeof edges.x) => {
      const all = Array.from({ length: levels }, (_, level) => edgeTable(n, 2 << level, 2 << level, edge));
      const out = new Int32Array(all.reduce((sum, one) => sum + one.length, 0));
      let at = 0;
      for (const one of all) {
        out.set(one, at);
        at += one.length;
      }
      return out;
    };
    const columns = tables(width, edges.x);
    const rows = tables(height, edges.y);
    return call((exports, arena) => {
      const line = 4 * (width + (4 << levels));
      const bytes = a.byteLength + 32;
      arena.begin((masks.length + 4) * bytes + columns.byteLength + rows.byteLength + line + 256);
      const out = vectors(arena, b);
      const apart = vectors(arena, a);
      const difference = arena.view(apart, a.length);
      for (let i = 0; i < b.length; i++) difference[i] -= b[i];
      const [smoother, middle] = [arena.room(bytes), arena.room(bytes)];
      const at = masks.map((mask) => arena.floats(mask));
      arena.room(16);
      exports.blendChannel(
        out,
        apart,
        smoother,
        middle,
        width,
        height,
        levels,
        at[0],
        arena.integers(columns),
        arena.integers(rows),
        arena.room(line),
      );
      return arena.read(out, a.length);
    });
  };

export const wasm = ({ call }: WasmHost): typeof reference => ({
  blendChannel: wasmBlendChannel(call),
});
