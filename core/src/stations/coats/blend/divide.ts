import { separable } from './mode.ts';

/** What is below over what lies above. */
export const divide = separable({
  title: 'Divide',
  code: 14,
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = a <= 0 ? (b <= 0 ? 0 : 1) : b / a;
    }
  },
});
