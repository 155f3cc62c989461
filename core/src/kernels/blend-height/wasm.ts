import { inPlace } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { blendHeight, reference } from './reference.ts';

const RULES = { add: 0, raise: 1, lower: 2, replace: 3 };

const wasmBlendHeight =
  (call: Call): typeof blendHeight =>
  (below, above, cover, rule, base) =>
    inPlace(call, below, [above, cover], (exports, at, [over, share], bytes, [a, c]) =>
      exports.blendHeight(at, over, share, bytes, a, c, RULES[rule], base),
    );

export const wasm = ({ call }: WasmHost): typeof reference => ({ blendHeight: wasmBlendHeight(call) });
