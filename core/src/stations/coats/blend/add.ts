import { separable } from './mode.ts';

/** Sum of both. */
export const add = separable({
  title: 'Add',
  code: 12,
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = b + a;
    }
  },
});
