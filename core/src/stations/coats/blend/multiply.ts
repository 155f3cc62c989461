import { separable } from './mode.ts';

/** Product of both: never brighter than either (W3C Compositing and Blending Level 1, 2024). */
export const multiply = separable({
  title: 'Multiply',
  of: (below, above) => below * above,
});
