import { edgeTable } from '../../raster/edges.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { atrousSmooth, reference } from './reference.ts';

const wasmAtrousSmooth =
  (call: Call): typeof atrousSmooth =>
  (plane, width, height, hole, edges) => {
    const reach = 2 * hole;
    const columns = edgeTable(width, reach, reach, edges.x);
    const rows = edgeTable(height, reach, reach, edges.y);
    return call((exports, arena) => {
      const line = 4 * (width + 2 * reach);
      arena.begin(2 * plane.byteLength + columns.byteLength + rows.byteLength + line + 128);
      const source = arena.floats(plane);
      exports.atrousSmooth(
        source,
        arena.room(plane.byteLength),
        width,
        height,
        hole,
        arena.integers(columns),
        arena.integers(rows),
        arena.room(line),
      );
      return arena.read(source, plane.length);
    });
  };

export const wasm = ({ call }: WasmHost): typeof reference => ({
  atrousSmooth: wasmAtrousSmooth(call),
});
