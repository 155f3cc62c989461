import { separable } from './mode.ts';

/** Hard light with both exchanged: what is below says where it is multiplied or screened (W3C Compositing and Blending Level 1, 2024). */
export const overlay = separable({
  title: 'Overlay',
  code: 3,
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = b <= 0.5 ? 2 * b * a : a + (2 * b - 1) * (1 - a);
    }
  },
});
