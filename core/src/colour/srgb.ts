/** Linear light 0..1 of an sRGB-encoded value 0..1, exact curve (IEC 61966-2-1, 1999). Odd below 0. */
export function srgbToLinear(v: number): number {
  const a = Math.abs(v);
  const linear = a <= 0.04045 ? a / 12.92 : ((a + 0.055) / 1.055) ** 2.4;
  return v < 0 ? -linear : linear;
}

/** sRGB-encoded value 0..1 of linear light 0..1, exact curve (IEC 61966-2-1, 1999). Odd below 0. */
export function linearToSrgb(v: number): number {
  const a = Math.abs(v);
  const encoded = a <= 0.0031308 ? a * 12.92 : 1.055 * a ** (1 / 2.4) - 0.055;
  return v < 0 ? -encoded : encoded;
}

/** Table of linear values for every code of 8 or 16 bits, sRGB encoded. */
export function linearTable(bits: 8 | 16): Float32Array {
  const codes = 2 ** bits;
  const table = new Float32Array(codes);
  for (let i = 0; i < codes; i++) table[i] = srgbToLinear(i / (codes - 1));
  return table;
}

/** sRGB code 0..255 of a linear value; what lies outside 0..1 is brought to its end. */
export const srgbCode = (linear: number): number =>
  Math.round(255 * linearToSrgb(Math.min(1, Math.max(0, linear))));
