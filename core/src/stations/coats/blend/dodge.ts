import { separable } from './mode.ts';

/** Brightens what is below by what lies above (W3C Compositing and Blending Level 1, 2024). */
export const dodge = separable({
  title: 'Dodge',
  code: 6,
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = b === 0 ? 0 : a >= 1 ? 1 : Math.min(1, b / (1 - a));
    }
  },
});
