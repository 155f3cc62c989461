import { separable } from './mode.ts';

/** How far both are apart (W3C Compositing and Blending Level 1, 2024). */
export const difference = separable({
  title: 'Difference',
  of: (below, above) => Math.abs(below - above),
});
