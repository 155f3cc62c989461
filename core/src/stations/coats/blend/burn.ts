import { separable } from './mode.ts';

/** Darkens what is below by what lies above (W3C Compositing and Blending Level 1, 2024). */
export const burn = separable({
  title: 'Burn',
  of: (below, above) => (below >= 1 ? 1 : above <= 0 ? 0 : 1 - Math.min(1, (1 - below) / above)),
});
