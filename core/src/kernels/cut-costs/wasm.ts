import type { Call, WasmHost } from '../host/wasm.ts';
import type { cutCosts, reference } from './reference.ts';
import { FLAT, LENGTH_COST } from './reference.ts';

const wasmCutCosts =
  (call: Call): typeof cutCosts =>
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

export const wasm = ({ call }: WasmHost): typeof reference => ({
  cutCosts: wasmCutCosts(call),
});
