import type { Triple } from '../../../kernels/blend-planes/reference.ts';

/** Brightness as the non-separable blend modes weigh it (W3C Compositing and Blending Level 1, 2024). */
export const lumOf = ([r, g, b]: Readonly<Triple>): number => 0.3 * r + 0.59 * g + 0.11 * b;

/** Saturation as the non-separable blend modes take it: from the least to the largest channel. */
export const satOf = (c: Readonly<Triple>): number => Math.max(c[0], c[1], c[2]) - Math.min(c[0], c[1], c[2]);

/** Brings a colour whose channels leave 0..1 back along the line to its own grey, in place. */
function clipped(c: Triple): void {
  const lum = lumOf(c);
  const least = Math.min(c[0], c[1], c[2]);
  const most = Math.max(c[0], c[1], c[2]);
  for (let k = 0; k < 3; k++) {
    if (least < 0) c[k] = lum + ((c[k] - lum) * lum) / (lum - least);
    if (most > 1) c[k] = lum + ((c[k] - lum) * (1 - lum)) / (most - lum);
  }
}

/** Gives a colour another brightness, in place. */
export function setLum(c: Triple, lum: number): void {
  const more = lum - lumOf(c);
  for (let k = 0; k < 3; k++) c[k] += more;
  clipped(c);
}

/** Gives a colour another saturation, in place: its least channel becomes 0, its largest `saturation`. */
export function setSat(c: Triple, saturation: number): void {
  const least = Math.min(c[0], c[1], c[2]);
  const range = satOf(c);
  for (let k = 0; k < 3; k++) c[k] = range > 0 ? ((c[k] - least) * saturation) / range : 0;
}
