import { lumOf, satOf, setLum, setSat } from './hsl.ts';
import { ofColours } from './mode.ts';

/** The saturation of what lies above, with hue and brightness of what is below (W3C Compositing and Blending Level 1, 2024). */
export const saturation = ofColours({
  title: 'Saturation',
  code: 16,
  into(below, above, out) {
    const lum = lumOf(below);
    const sat = satOf(above);
    for (let k = 0; k < 3; k++) out[k] = below[k];
    setSat(out, sat);
    setLum(out, lum);
  },
});
