import { separable } from './mode.ts';

/** Multiplies where what lies above is dark, screens where it is bright (W3C Compositing and Blending Level 1, 2024). */
export const hardLight = separable({
  title: 'Hard light',
  code: 8,
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = a <= 0.5 ? 2 * b * a : b + (2 * a - 1) * (1 - b);
    }
  },
});
