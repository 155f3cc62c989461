import { separable } from './mode.ts';

/** Like difference, with less contrast (W3C Compositing and Blending Level 1, 2024). */
export const exclusion = separable({
  title: 'Exclusion',
  code: 11,
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = b + a - 2 * b * a;
    }
  },
});
