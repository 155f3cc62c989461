import { separable } from './mode.ts';

/** The lighter of both (W3C Compositing and Blending Level 1, 2024). */
export const lighten = separable({
  title: 'Lighten',
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = Math.max(b, a);
    }
  },
});
