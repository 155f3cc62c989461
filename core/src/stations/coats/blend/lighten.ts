import { separable } from './mode.ts';

/** The lighter of both (W3C Compositing and Blending Level 1, 2024). */
export const lighten = separable({
  title: 'Lighten',
  of: (below, above) => Math.max(below, above),
});
