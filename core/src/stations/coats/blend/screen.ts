import { separable } from './mode.ts';

/** Complement of the product of both complements: never darker than either (W3C Compositing and Blending Level 1, 2024). */
export const screen = separable({
  title: 'Screen',
  of: (below, above) => below + above - below * above,
});
