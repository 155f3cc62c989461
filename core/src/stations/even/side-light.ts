import * as v from 'valibot';
import { fft2, frequency, type Spectrum } from '../../fft/fft.ts';
import type { Raster } from '../../raster/raster.ts';
import { PAUSE_ROWS, type Steps } from '../../work/steps.ts';
import { OCTAVES, octaveOf, SIDE_PLANE, sidePlane } from './side-plane.ts';

export const sideLightSchema = v.strictObject({
  degrees: v.number(),
  plain: v.number(),
  shares: v.pipe(v.array(v.number()), v.length(OCTAVES)),
});

/** Light from the side, as it is seen in the shading of relief. */
export interface SideLight {
  /** The line along which it falls, degrees clockwise from level, −90…90; from which end is not told. */
  degrees: number;
  /** How plainly one line rules, 0…1: below 0.06 it is chance. */
  plain: number;
  /** Of each octave, how much of its detail along that line is shading, 0…1. */
  shares: number[];
}

/** More of a grain than this is not made by light alone. */
const MOST = 0.25;
/** An octave with less of all energy holds nothing but what leaks from the others. */
const LEAST = 0.002;
/** The lowest octaves hold few waves, whose directions are chance. */
const WEIGHTS = [0.125, 0.25, 0.5, 1, 1, 1];

/** Log luminance faded out towards its edges by Hann's window. */
function windowed({ width, height, logs }: ReturnType<typeof sidePlane>): Float64Array {
  const re = new Float64Array(SIDE_PLANE * SIDE_PLANE);
  const hann = (k: number, n: number) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (k + 0.5)) / n);
  const across = Float64Array.from({ length: width }, (_, x) => hann(x, width));
  for (let y = 0; y < height; y++) {
    const down = hann(y, height);
    for (let x = 0; x < width; x++) re[y * SIDE_PLANE + x] = logs[y * width + x] * across[x] * down;
  }
  return re;
}

/**
 * The line of side light in a picture: shading of relief by slanting light has a spectrum like cos² of the angle to
 * the light (Knill 1990; Chantler 1995), colour of a surface without a grain has none, so the second moment of
 * the spectrum tells the line, octave by octave so that coarse detail does not rule (ring-normalised). With
 * `degrees` given, only how much along that line is shading. Walls and ripples have a grain of their own, which this
 * cannot tell from light.
 */
export function* findSideLight(picture: Raster, degrees: number | null): Steps<SideLight> {
  const re = windowed(sidePlane(picture));
  yield;
  const spectrum = { width: SIDE_PLANE, height: SIDE_PLANE, re, im: new Float64Array(re.length) };
  return yield* sideLightIn(yield* fft2(spectrum), degrees);
}

/** Of each octave its energy, and its second moment along the picture's axis and at half a right angle to it. */
type Moments = Float64Array[];

function addRow({ width, height, re, im }: Spectrum, y: number, [energy, along, aside]: Moments): void {
  const longer = Math.max(width, height);
  const fy = (frequency(y, height) * longer) / height;
  for (let x = 0; x < width; x++) {
    const fx = (frequency(x, width) * longer) / width;
    const square = fx * fx + fy * fy;
    const octave = Math.floor(octaveOf(Math.sqrt(square)));
    if (octave < 0 || octave >= OCTAVES) continue;
    const i = y * width + x;
    const power = re[i] * re[i] + im[i] * im[i];
    energy[octave] += power;
    along[octave] += (power * (fx * fx - fy * fy)) / square;
    aside[octave] += (power * 2 * fx * fy) / square;
  }
}

/** The same by a spectrum of log luminance; octaves are counted over the longer edge. */
export function* sideLightIn(spectrum: Spectrum, degrees: number | null): Steps<SideLight> {
  const moments: Moments = [0, 1, 2].map(() => new Float64Array(OCTAVES));
  for (let y = 0; y < spectrum.height; y++) {
    if (y % PAUSE_ROWS === 0) yield;
    addRow(spectrum, y, moments);
  }
  const [energy, along, aside] = moments;
  const total = energy.reduce((sum, value) => sum + value, 0);
  const weights = WEIGHTS.map((weight, k) => (energy[k] > LEAST * total ? weight : 0));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  const mean = (values: Float64Array) =>
    whole > 0
      ? values.reduce((sum, value, k) => sum + (weights[k] > 0 ? (weights[k] * value) / energy[k] : 0), 0) /
        whole
      : 0;
  const [c, s] = [mean(along), mean(aside)];
  const found = degrees === null ? Math.atan2(s, c) / 2 : (degrees * Math.PI) / 180;
  const shares = Array.from(energy, (sum, k) => {
    if (sum === 0) return 0;
    // With a spectrum of A + B·cos², the moment is (B/4)/(A + B/2).
    const moment = (along[k] * Math.cos(2 * found) + aside[k] * Math.sin(2 * found)) / sum;
    const held = Math.min(MOST, Math.max(0, moment));
    const ratio = (4 * held) / (1 - 2 * held);
    return ratio / (1 + ratio);
  });
  return { degrees: degrees ?? (found * 180) / Math.PI, plain: Math.hypot(c, s), shares };
}
