import { separable } from './mode.ts';

/** What is below less what lies above. */
export const subtract = separable({
  title: 'Subtract',
  of: (below, above) => below - above,
});
