import type { Call, WasmHost } from '../host/wasm.ts';
import type { flowLines, reference } from './reference.ts';

const wasmFlowLines =
  (call: Call): typeof flowLines =>
  ({ channels, flow, width, height, pad }, weights, step) =>
    call((exports, arena) => {
      const bytes = 16 * width * height;
      arena.begin(channels.byteLength + flow.byteLength + bytes + weights.byteLength + 64);
      const [from, along] = [arena.floats(channels), arena.floats(flow)];
      const out = arena.room(bytes);
      const by = arena.floats(weights);
      const total = weights.reduce((sum, weight, k) => sum + (k === 0 ? weight : 2 * weight), 0);
      exports.flowLines(from, along, out, width, height, pad, by, weights.length - 1, step, 1 / total);
      return arena.read(out, bytes / 4);
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({ flowLines: wasmFlowLines(call) });
