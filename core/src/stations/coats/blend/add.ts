import { separable } from './mode.ts';

/** Sum of both. */
export const add = separable({
  title: 'Add',
  of: (below, above) => below + above,
});
