import { separable } from './mode.ts';

/** The darker of both (W3C Compositing and Blending Level 1, 2024). */
export const darken = separable({
  title: 'Darken',
  of: (below, above) => Math.min(below, above),
});
