import { separable } from './mode.ts';

/** Like difference, with less contrast (W3C Compositing and Blending Level 1, 2024). */
export const exclusion = separable({
  title: 'Exclusion',
  of: (below, above) => below + above - 2 * below * above,
});
