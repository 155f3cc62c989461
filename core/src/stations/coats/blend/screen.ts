import { separable } from './mode.ts';

/** Complement of the product of both complements: never darker than either (W3C Compositing and Blending Level 1, 2024). */
export const screen = separable({
  title: 'Screen',
  code: 2,
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = b + a - b * a;
    }
  },
});
