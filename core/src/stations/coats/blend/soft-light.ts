import { separable } from './mode.ts';

const brightened = (below: number): number =>
  below <= 0.25 ? ((16 * below - 12) * below + 4) * below : Math.sqrt(below);

/** Darkens or brightens what is below gently, as what lies above is dark or bright (W3C Compositing and Blending Level 1, 2024). */
export const softLight = separable({
  title: 'Soft light',
  of: (below, above) =>
    above <= 0.5
      ? below - (1 - 2 * above) * below * (1 - below)
      : below + (2 * above - 1) * (brightened(below) - below),
});
