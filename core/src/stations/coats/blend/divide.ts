import { separable } from './mode.ts';

/** What is below over what lies above. */
export const divide = separable({
  title: 'Divide',
  of: (below, above) => (above <= 0 ? (below <= 0 ? 0 : 1) : below / above),
});
