import { separable } from './mode.ts';
import { multiply } from './multiply.ts';
import { screen } from './screen.ts';

/** Multiplies where what lies above is dark, screens where it is bright (W3C Compositing and Blending Level 1, 2024). */
export const hardLight = separable({
  title: 'Hard light',
  of: (below, above) => (above <= 0.5 ? multiply.of(below, 2 * above) : screen.of(below, 2 * above - 1)),
});
