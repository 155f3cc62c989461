import { separable } from './mode.ts';

/** The darker of both (W3C Compositing and Blending Level 1, 2024). */
export const darken = separable({
  title: 'Darken',
  code: 4,
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = Math.min(b, a);
    }
  },
});
