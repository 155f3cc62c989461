import type { Call, WasmHost } from '../host/wasm.ts';
import { LEAST, type reference, SHARE, type shockEdges } from './reference.ts';

const wasmShockEdges =
  (call: Call): typeof shockEdges =>
  ({ channels, flow, signs, width, height, pad }, { count, step }) =>
    call((exports, arena) => {
      const bytes = 16 * width * height;
      arena.begin(channels.byteLength + flow.byteLength + signs.byteLength + bytes + 64);
      const [from, along, by] = [arena.floats(channels), arena.floats(flow), arena.floats(signs)];
      const out = arena.room(bytes);
      exports.shockEdges(from, along, by, out, width, height, pad, count, step, SHARE, LEAST);
      return arena.read(out, bytes / 4);
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({ shockEdges: wasmShockEdges(call) });
