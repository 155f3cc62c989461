import { separable } from './mode.ts';

/** Brightens what is below by what lies above (W3C Compositing and Blending Level 1, 2024). */
export const dodge = separable({
  title: 'Dodge',
  of: (below, above) => (below === 0 ? 0 : above >= 1 ? 1 : Math.min(1, below / (1 - above))),
});
