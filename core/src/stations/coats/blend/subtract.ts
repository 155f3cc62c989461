import { separable } from './mode.ts';

/** What is below less what lies above. */
export const subtract = separable({
  title: 'Subtract',
  code: 13,
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = b - a;
    }
  },
});
