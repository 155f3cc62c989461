import { separable } from './mode.ts';

/** How far both are apart (W3C Compositing and Blending Level 1, 2024). */
export const difference = separable({
  title: 'Difference',
  code: 10,
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = Math.abs(b - a);
    }
  },
});
