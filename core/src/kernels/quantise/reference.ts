/**
 * Interleaved whole-number samples of planes 0..1, rounded to the nearest code of 8 or 16 bits; into the start of `out`
 * where one is given.
 */
export function quantise(
  planes: Float32Array[],
  bits: 8 | 16,
  out: Uint8Array | Uint16Array = new (bits === 8 ? Uint8Array : Uint16Array)(
    planes[0].length * planes.length,
  ),
): Uint8Array | Uint16Array {
  const n = planes[0].length;
  const channels = planes.length;
  const full = 2 ** bits - 1;
  for (let c = 0; c < channels; c++) {
    const plane = planes[c];
    for (let i = 0, at = c; i < n; i++, at += channels) {
      const v = plane[i];
      out[at] = v <= 0 ? 0 : v >= 1 ? full : Math.floor(v * full + 0.5);
    }
  }
  return out;
}

export const reference = { quantise };
