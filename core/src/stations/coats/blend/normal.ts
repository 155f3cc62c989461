import { separable } from './mode.ts';

/** What lies above takes the place of what is below (W3C Compositing and Blending Level 1, 2024). */
export const normal = separable({
  title: 'Normal',
  code: 0,
  row(_below, above, step, out, from, to) {
    for (let i = from; i < to; i++) out[i - from] = above[step * i];
  },
});
