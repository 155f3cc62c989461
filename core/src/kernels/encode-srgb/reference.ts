import { linearToSrgb } from '../../colour/srgb.ts';

const ENCODE_STEPS = 65536;
let encodeTable: Float32Array | null = null;

function encodeTableOnce(): Float32Array {
  if (!encodeTable) {
    // Indexed by the square root, which spreads the steep start of the curve.
    encodeTable = new Float32Array(ENCODE_STEPS + 2);
    for (let i = 0; i < encodeTable.length; i++) encodeTable[i] = linearToSrgb((i / ENCODE_STEPS) ** 2);
  }
  return encodeTable;
}

/** A whole plane through `linearToSrgb`, clamped to 0..1, by a table good to 1e-6. */
export function encodeSrgbPlane(plane: Float32Array): Float32Array {
  const table = encodeTableOnce();
  const out = new Float32Array(plane.length);
  for (let i = 0; i < plane.length; i++) {
    const v = plane[i];
    if (!(v > 0)) continue;
    if (v >= 1) {
      out[i] = 1;
      continue;
    }
    const at = Math.sqrt(v) * ENCODE_STEPS;
    const low = at | 0;
    out[i] = table[low] + (table[low + 1] - table[low]) * (at - low);
  }
  return out;
}

export const reference = { encodeSrgbPlane };
