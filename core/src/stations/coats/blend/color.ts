import { lumOf, setLum } from './hsl.ts';
import { ofColours } from './mode.ts';

/** Hue and saturation of what lies above, with the brightness of what is below (W3C Compositing and Blending Level 1, 2024). */
export const color = ofColours({
  title: 'Color',
  code: 17,
  into(below, above, out) {
    const lum = lumOf(below);
    for (let k = 0; k < 3; k++) out[k] = above[k];
    setLum(out, lum);
  },
});
