import { lumOf, satOf, setLum, setSat } from './hsl.ts';
import { ofColours } from './mode.ts';

/** The hue of what lies above, with saturation and brightness of what is below (W3C Compositing and Blending Level 1, 2024). */
export const hue = ofColours({
  title: 'Hue',
  code: 15,
  into(below, above, out) {
    const lum = lumOf(below);
    const sat = satOf(below);
    for (let k = 0; k < 3; k++) out[k] = above[k];
    setSat(out, sat);
    setLum(out, lum);
  },
});
