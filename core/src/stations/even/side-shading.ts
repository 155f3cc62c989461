import { fft2, frequency, inverseFft2, type Spectrum } from '../../fft/fft.ts';
import type { Raster } from '../../raster/raster.ts';
import { PAUSE_ROWS, type Steps } from '../../work/steps.ts';
import type { SideLight } from './side-light.ts';
import { OCTAVES, octaveOf, SIDE_PLANE, sidePlane } from './side-plane.ts';

/** Logarithms of shading on a grid over the picture. */
export interface ShadingField {
  width: number;
  height: number;
  values: Float32Array;
}

/** Share of the detail at an angle to the light that is shading, by Wiener's estimate: B·cos²/(A + B·cos²). */
function gainOf(shares: number[], octave: number, cosSquare: number): number {
  const low = Math.min(OCTAVES - 1, Math.max(0, Math.floor(octave - 0.5)));
  const high = Math.min(OCTAVES - 1, low + 1);
  const t = Math.min(1, Math.max(0, octave - 0.5 - low));
  const share = (1 - t) * shares[low] + t * shares[high];
  // The ratio B/A of shading to all else, from its share along the light.
  const ratio = share / Math.max(1e-6, 1 - share);
  return (ratio * cosSquare) / (1 + ratio * cosSquare);
}

/** Log luminance on the plane of the spectra. What lies outside is the mirror image, so that no edge rings; half on each side. */
function mirroredOut({ width, height, logs }: ReturnType<typeof sidePlane>): Float64Array {
  const re = new Float64Array(SIDE_PLANE * SIDE_PLANE);
  const mirrored = (i: number, n: number) => {
    const at = i < (n + SIDE_PLANE) / 2 ? i : i - SIDE_PLANE;
    return at < 0 ? Math.min(n - 1, -1 - at) : at < n ? at : Math.max(0, 2 * n - 1 - at);
  };
  for (let y = 0; y < SIDE_PLANE; y++) {
    const row = mirrored(y, height) * width;
    for (let x = 0; x < SIDE_PLANE; x++) re[y * SIDE_PLANE + x] = logs[row + mirrored(x, width)];
  }
  return re;
}

/** Row `y` of a spectrum, of which only shading is left. */
function shadingRow({ re, im }: Spectrum, y: number, { degrees, shares }: SideLight): void {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const fy = frequency(y, SIDE_PLANE);
  for (let x = 0; x < SIDE_PLANE; x++) {
    const fx = frequency(x, SIDE_PLANE);
    const square = fx * fx + fy * fy;
    const i = y * SIDE_PLANE + x;
    const octave = octaveOf(Math.sqrt(square));
    const gain = octave < 0 ? 0 : gainOf(shares, octave, (fx * c + fy * s) ** 2 / square);
    re[i] *= gain;
    im[i] *= gain;
  }
}

/**
 * The shading by light from the side in a picture: what of its log luminance the light explains, frequency by
 * frequency (a Wiener filter over `findSideLight`'s spectra). Found on a plane of its own size, so that it is the
 * same at every size of the picture; detail finer than that is left as it is.
 */
export function* sideShading(picture: Raster, light: SideLight): Steps<ShadingField> {
  const plane = sidePlane(picture);
  yield;
  const re = mirroredOut(plane);
  const [width, height] = [SIDE_PLANE, SIDE_PLANE];
  const spectrum = yield* fft2({ width, height, re, im: new Float64Array(re.length) });
  for (let y = 0; y < SIDE_PLANE; y++) {
    if (y % PAUSE_ROWS === 0) yield;
    shadingRow(spectrum, y, light);
  }
  const { re: shading } = yield* inverseFft2(spectrum);
  const values = new Float32Array(plane.width * plane.height);
  for (let y = 0; y < plane.height; y++) {
    values.set(shading.subarray(y * SIDE_PLANE, y * SIDE_PLANE + plane.width), y * plane.width);
  }
  return { width: plane.width, height: plane.height, values };
}
