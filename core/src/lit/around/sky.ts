import { dot, type Triple } from '../shade.ts';

/** Radiance of 1 is so many kcd/m² of a real sky; an irradiance of 1 is so many times 1000 lux. */
const UNIT = 10;
/** The sun beyond the air, in units of irradiance. */
const SUN_OUTSIDE = 128 / UNIT;
/** Wavelengths that stand for red, green and blue, in µm. */
const WAVELENGTHS: Triple = [0.615, 0.535, 0.455];
/** The model of the sky holds for a sun above the horizon: lower ones are taken as this high, as a sine. */
const LOWEST = Math.sin((2 * Math.PI) / 180);

/** Height of the sun in radians, as the models take it. */
const heightOf = (sun: Triple): number => Math.asin(Math.min(1, Math.max(LOWEST, sun[1])));

/** XYZ of a colour given by its chromaticity and luminance, as linear sRGB; what the screen cannot show is cut. */
function linearOf(x: number, y: number, luminance: number): Triple {
  const [X, Z] = [(x / y) * luminance, ((1 - x - y) / y) * luminance];
  return [
    Math.max(0, 3.2406 * X - 1.5372 * luminance - 0.4986 * Z),
    Math.max(0, -0.9689 * X + 1.8758 * luminance + 0.0415 * Z),
    Math.max(0, 0.0557 * X - 0.204 * luminance + 1.057 * Z),
  ];
}

/** Coefficients of one quantity of the sky at a turbidity (Preetham et al. 1999, appendix A.2), darkening and glow. */
const perez = (turbidity: number, rows: readonly [number, number][]): number[] =>
  rows.map(([slope, offset]) => slope * turbidity + offset);

/** Luminance or chromaticity of a sky relative to its zenith's (Perez et al. 1993). */
const perezAt = ([a, b, c, d, e]: readonly number[], rise: number, cosine: number): number =>
  (1 + a * Math.exp(b / rise)) * (1 + c * Math.exp(d * Math.acos(cosine)) + e * cosine * cosine);

/** A cubic in the sun's distance from the zenith for each power of the turbidity. */
const zenithOf = (turbidity: number, theta: number, rows: readonly (readonly number[])[]): number => {
  const powers = [theta ** 3, theta ** 2, theta, 1];
  const [two, one, none] = rows.map((row) => row.reduce((sum, value, k) => sum + value * powers[k], 0));
  return two * turbidity ** 2 + one * turbidity + none;
};

/**
 * Radiance of a clear sky, linear sRGB, for a turbidity of 2 (very clear) to 10 (haze) and a unit vector to the sun, y up
 * (Preetham, Shirley & Smits 1999). The function takes unit vectors; below the horizon it continues the horizon.
 */
export function clearSky(turbidity: number, sun: Triple): (towards: Triple) => Triple {
  const theta = Math.PI / 2 - heightOf(sun);
  const chi = (4 / 9 - turbidity / 120) * (Math.PI - 2 * theta);
  const zenith = [
    zenithOf(turbidity, theta, [
      [0.00166, -0.00375, 0.00209, 0],
      [-0.02903, 0.06377, -0.03202, 0.00394],
      [0.11693, -0.21196, 0.06052, 0.25886],
    ]),
    zenithOf(turbidity, theta, [
      [0.00275, -0.0061, 0.00317, 0],
      [-0.04214, 0.0897, -0.04153, 0.00516],
      [0.15346, -0.26756, 0.0667, 0.26688],
    ]),
    ((4.0453 * turbidity - 4.971) * Math.tan(chi) - 0.2155 * turbidity + 2.4192) / UNIT,
  ];
  const laws = [
    perez(turbidity, [
      [-0.0193, -0.2592],
      [-0.0665, 0.0008],
      [-0.0004, 0.2125],
      [-0.0641, -0.8989],
      [-0.0033, 0.0452],
    ]),
    perez(turbidity, [
      [-0.0167, -0.2608],
      [-0.095, 0.0092],
      [-0.0079, 0.2102],
      [-0.0441, -1.6537],
      [-0.0109, 0.0529],
    ]),
    perez(turbidity, [
      [0.1787, -1.463],
      [-0.3554, 0.4275],
      [-0.0227, 5.3251],
      [0.1206, -2.5771],
      [-0.067, 0.3703],
    ]),
  ];
  const above = laws.map((law) => perezAt(law, 1, Math.cos(theta)));
  return (towards) => {
    const rise = Math.max(0.012, towards[1]);
    const cosine = Math.min(1, Math.max(-1, dot(towards, sun)));
    const [x, y, luminance] = laws.map((law, k) => (zenith[k] * perezAt(law, rise, cosine)) / above[k]);
    return linearOf(x, y, Math.max(0, luminance));
  };
}

/**
 * Irradiance of the sun on a surface that faces it, linear sRGB, after Rayleigh's and Ångström's scattering along the path
 * through the air (Preetham et al. 1999, appendix A.1; air mass after Kasten & Young 1989).
 */
export function sunLight(turbidity: number, sun: Triple): Triple {
  const height = heightOf(sun);
  const degrees = (height * 180) / Math.PI;
  const mass = 1 / (Math.sin(height) + 0.50572 * (degrees + 6.07995) ** -1.6364);
  const beta = 0.04608 * turbidity - 0.04586;
  return WAVELENGTHS.map(
    (length) => SUN_OUTSIDE * Math.exp(-mass * (0.008735 * length ** -4.08 + beta * length ** -1.3)),
  ) as Triple;
}

/** Radiance of a sky under even cloud relative to its zenith's, for the sine of a height (Moon & Spencer 1942). */
export const cloudedSky = (rise: number): number => (1 + 2 * Math.max(0, rise)) / 3;
