/** Values, by a table, of the first three of so many interleaved channels, into a plane each. */
export function takeCodes(
  data: Uint8Array | Uint16Array,
  channels: number,
  table: Float32Array,
  [r, g, b]: Float32Array[],
): void {
  for (let i = 0, at = 0; i < r.length; i++, at += channels) {
    r[i] = table[data[at]];
    g[i] = table[data[at + 1]];
    b[i] = table[data[at + 2]];
  }
}

export const reference = { takeCodes };
