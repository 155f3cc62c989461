/**
 * Derives the normal reflectance of the chart's metals from their optical constants, as linear sRGB under D65:
 * R(λ) = |(ñ − 1) / (ñ + 1)|² (Fresnel), weighed by the CIE 1931 2° observer (multi-lobe fit of Wyman, Sloan & Shirley 2013)
 * and D65, over that of a perfect reflector. `npx tsx scripts/metals.ts` prints the table.
 */
import { pathToFileURL } from 'node:url';

type Complex = [re: number, im: number];

const times = ([a, b]: Complex, [c, d]: Complex): Complex => [a * c - b * d, a * d + b * c];
const over = ([a, b]: Complex, [c, d]: Complex): Complex => {
  const square = c * c + d * d;
  return [(a * c + b * d) / square, (b * c - a * d) / square];
};

/** Photon energy in eV of a wavelength in nm. */
const energyOf = (nm: number) => 1239.84 / nm;

/** The refractive index n + ik at a photon energy in eV. */
type Index = (energy: number) => Complex;

/** Measured n and k by photon energy in eV, linear between (Johnson & Christy 1972). */
const measured =
  (rows: readonly [energy: number, n: number, k: number][]): Index =>
  (energy) => {
    const at = rows.findIndex(([e]) => e >= energy);
    const [low, high] = [rows[at - 1], rows[at]];
    const t = (energy - low[0]) / (high[0] - low[0]);
    return [low[1] + t * (high[1] - low[1]), low[2] + t * (high[2] - low[2])];
  };

/** The Lorentz–Drude model: plasma frequency and terms in eV (Rakić, Djurišić, Elazar & Majewski 1998, table 2). */
const modelled =
  (plasma: number, terms: readonly [strength: number, damping: number, frequency: number][]): Index =>
  (energy) => {
    let epsilon: Complex = [1, 0];
    for (const [strength, damping, frequency] of terms) {
      const term = over([strength * plasma ** 2, 0], [frequency ** 2 - energy ** 2, -energy * damping]);
      epsilon = [epsilon[0] + term[0], epsilon[1] + term[1]];
    }
    const size = Math.hypot(...epsilon);
    return [Math.sqrt((size + epsilon[0]) / 2), Math.sqrt((size - epsilon[0]) / 2)];
  };

export const METALS: Record<string, Index> = {
  aluminium: modelled(14.98, [
    [0.523, 0.047, 0],
    [0.227, 0.333, 0.162],
    [0.05, 0.312, 1.544],
    [0.166, 1.351, 1.808],
    [0.03, 3.382, 3.473],
  ]),
  chromium: modelled(10.75, [
    [0.168, 0.047, 0],
    [0.151, 3.175, 0.121],
    [0.15, 1.305, 0.543],
    [1.149, 2.676, 1.97],
    [0.825, 1.335, 8.775],
  ]),
  copper: measured([
    [1.51, 0.26, 5.18],
    [1.64, 0.24, 4.665],
    [1.76, 0.21, 4.205],
    [1.88, 0.22, 3.747],
    [2.01, 0.3, 3.205],
    [2.14, 0.7, 2.704],
    [2.26, 1.02, 2.577],
    [2.38, 1.18, 2.608],
    [2.5, 1.22, 2.564],
    [2.63, 1.25, 2.483],
    [2.75, 1.24, 2.397],
    [2.88, 1.25, 2.305],
    [3.0, 1.28, 2.207],
    [3.12, 1.32, 2.116],
    [3.25, 1.33, 2.045],
  ]),
  gold: measured([
    [1.51, 0.16, 5.083],
    [1.64, 0.14, 4.542],
    [1.76, 0.13, 4.103],
    [1.88, 0.14, 3.697],
    [2.01, 0.21, 3.272],
    [2.14, 0.29, 2.863],
    [2.26, 0.43, 2.455],
    [2.38, 0.62, 2.081],
    [2.5, 1.04, 1.833],
    [2.63, 1.31, 1.849],
    [2.75, 1.38, 1.914],
    [2.88, 1.45, 1.948],
    [3.0, 1.46, 1.958],
    [3.12, 1.47, 1.952],
    [3.25, 1.46, 1.933],
  ]),
  nickel: modelled(15.92, [
    [0.096, 0.048, 0],
    [0.1, 4.511, 0.174],
    [0.135, 1.334, 0.582],
    [0.106, 2.178, 1.597],
    [0.729, 6.292, 6.089],
  ]),
  silver: measured([
    [1.51, 0.04, 5.727],
    [1.64, 0.03, 5.242],
    [1.76, 0.04, 4.838],
    [1.88, 0.05, 4.483],
    [2.01, 0.06, 4.152],
    [2.14, 0.05, 3.858],
    [2.26, 0.06, 3.586],
    [2.38, 0.05, 3.324],
    [2.5, 0.05, 3.093],
    [2.63, 0.05, 2.869],
    [2.75, 0.04, 2.657],
    [2.88, 0.04, 2.462],
    [3.0, 0.05, 2.275],
    [3.12, 0.05, 2.07],
    [3.25, 0.05, 1.864],
  ]),
  titanium: modelled(7.29, [
    [0.148, 0.082, 0],
    [0.899, 2.276, 0.777],
    [0.393, 2.518, 1.545],
    [0.187, 1.663, 2.509],
    [0.001, 1.762, 19.43],
  ]),
};

/** D65 from 400 nm on in steps of 10 nm (CIE 015). */
const D65 = [
  82.7549, 91.486, 93.4318, 86.6823, 104.865, 117.008, 117.812, 114.861, 115.923, 108.811, 109.354, 107.802,
  104.79, 107.689, 104.405, 104.046, 100, 96.3342, 95.788, 88.6856, 90.0062, 89.5991, 87.6987, 83.2886,
  83.6992, 80.0268, 80.2146, 82.2778, 78.2842, 69.7213, 71.6091,
];

/** One lobe of the fit: its width differs below and above its middle. */
const lobe = (nm: number, middle: number, below: number, above: number) =>
  Math.exp(-0.5 * ((nm - middle) * (nm < middle ? below : above)) ** 2);

/** CIE 1931 x̄, ȳ, z̄ at a wavelength in nm. */
const observer = (nm: number): [number, number, number] => [
  0.362 * lobe(nm, 442, 0.0624, 0.0374) +
    1.056 * lobe(nm, 599.8, 0.0264, 0.0323) -
    0.065 * lobe(nm, 501.1, 0.049, 0.0382),
  0.821 * lobe(nm, 568.8, 0.0213, 0.0247) + 0.286 * lobe(nm, 530.9, 0.0613, 0.0322),
  1.217 * lobe(nm, 437, 0.0845, 0.0278) + 0.681 * lobe(nm, 459, 0.0385, 0.0725),
];

/** Linear sRGB from XYZ (IEC 61966-2-1). */
const TO_RGB = [
  [3.2406, -1.5372, -0.4986],
  [-0.9689, 1.8758, 0.0415],
  [0.0557, -0.204, 1.057],
];

/** Linear sRGB of a reflectance by wavelength under D65, before it is held to 0…1. */
function rgbOf(reflectance: (nm: number) => number): number[] {
  const sums = [0, 0, 0];
  for (const [k, power] of D65.entries()) {
    const nm = 400 + 10 * k;
    const light = reflectance(nm) * power;
    for (const [c, weight] of observer(nm).entries()) sums[c] += weight * light;
  }
  return TO_RGB.map((row) => row.reduce((sum, weight, c) => sum + weight * sums[c], 0));
}

/** Normal reflectance of a metal in linear sRGB, 0…1: what leaves the gamut is held at its border. */
export function metalF0(index: Index): number[] {
  const white = rgbOf(() => 1);
  const raw = rgbOf((nm) => {
    const n = index(energyOf(nm));
    const r = over([n[0] - 1, n[1]], [n[0] + 1, n[1]]);
    return times(r, [r[0], -r[1]])[0];
  });
  return raw.map((value, c) => Math.min(1, Math.max(0, value / white[c])));
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href)
  for (const [name, index] of Object.entries(METALS))
    console.log(
      name.padEnd(12),
      metalF0(index)
        .map((value) => value.toFixed(3))
        .join(' '),
    );
