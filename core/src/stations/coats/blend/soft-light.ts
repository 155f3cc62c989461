import { separable } from './mode.ts';

const brightened = (below: number): number =>
  below <= 0.25 ? ((16 * below - 12) * below + 4) * below : Math.sqrt(below);

/** Darkens or brightens what is below gently, as what lies above is dark or bright (W3C Compositing and Blending Level 1, 2024). */
export const softLight = separable({
  title: 'Soft light',
  code: 9,
  row(below, above, step, out, from, to) {
    for (let i = from; i < to; i++) {
      const b = below[i];
      const a = above[step * i];
      out[i - from] = a <= 0.5 ? b - (1 - 2 * a) * b * (1 - b) : b + (2 * a - 1) * (brightened(b) - b);
    }
  },
});
