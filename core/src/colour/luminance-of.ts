/** Weights of linear sRGB primaries in luminance Y (ITU-R BT.709). */
export const LUMINANCE: [number, number, number] = [0.2126, 0.7152, 0.0722];

/** Luminance Y of one linear RGB colour. */
export const luminanceOf = (r: number, g: number, b: number): number =>
  LUMINANCE[0] * r + LUMINANCE[1] * g + LUMINANCE[2] * b;
