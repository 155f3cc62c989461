import { separable } from './mode.ts';

/** Product of both: never brighter than either (W3C Compositing and Blending Level 1, 2024). */
export const multiply = separable({
  title: 'Multiply',
  code: 1,
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = b * a;
    }
  },
});
