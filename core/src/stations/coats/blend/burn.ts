import { separable } from './mode.ts';

/** Darkens what is below by what lies above (W3C Compositing and Blending Level 1, 2024). */
export const burn = separable({
  title: 'Burn',
  code: 7,
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = b >= 1 ? 1 : a <= 0 ? 0 : 1 - Math.min(1, (1 - b) / a);
    }
  },
});
