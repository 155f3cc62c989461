import { lumOf, setLum } from './hsl.ts';
import { ofColours } from './mode.ts';

/** The brightness of what lies above, with hue and saturation of what is below (W3C Compositing and Blending Level 1, 2024). */
export const luminosity = ofColours({
  title: 'Luminosity',
  code: 18,
  into(below, above, out) {
    const lum = lumOf(above);
    for (let k = 0; k < 3; k++) out[k] = below[k];
    setLum(out, lum);
  },
});
