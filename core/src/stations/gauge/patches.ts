import * as v from 'valibot';
import { luminanceOf } from '../../colour/luminance-of.ts';
import type { Raster } from '../../raster/raster.ts';
import { percentiles } from '../../statistics/statistics.ts';

const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1));

/** Neutral patches of known reflectance in the photo; places and radius in shares of its sides (radius: the shorter). */
export const patchesSchema = v.pipe(
  v.array(
    v.strictObject({
      x: share,
      y: share,
      radius: v.pipe(v.number(), v.minValue(0.001), v.maxValue(0.25)),
      /** Linear luminance Y. */
      reflectance: v.pipe(v.number(), v.minValue(0.005), v.maxValue(1)),
    }),
  ),
  v.maxLength(24),
);
export type Patch = v.InferOutput<typeof patchesSchema>[number];

/** Exposure and white balance by patches. */
export interface PatchFit {
  /** Gain of luminance. */
  gain: number;
  /** Gains of the channels on top of it, by which the patches are grey. */
  balance: [number, number, number];
  /** Root mean square of what is left over all patches and channels, relative. */
  residual: number;
  /** What is left of each patch's luminance, relative: above 0 where it comes out too bright. */
  errors: number[];
  /** Whether some patch is clipped, so that nothing can be identified by it. */
  burnt: boolean;
}

const BURNT = 0.985;
const DARKEST = 1e-4;

/** Middle of each channel over a patch, what is far off left out. */
function patchColour(photo: Raster, { x, y, radius }: Patch): [number, number, number] {
  const { width, height } = photo;
  const reach = Math.max(0.75, radius * Math.min(width, height));
  const [cx, cy] = [x * width, y * height];
  const inside: number[] = [];
  for (let py = Math.max(0, Math.floor(cy - reach)); py < Math.min(height, cy + reach); py++) {
    for (let px = Math.max(0, Math.floor(cx - reach)); px < Math.min(width, cx + reach); px++) {
      if (Math.hypot(px + 0.5 - cx, py + 0.5 - cy) <= reach) inside.push(py * width + px);
    }
  }
  if (inside.length === 0) {
    inside.push(Math.min(height - 1, Math.floor(cy)) * width + Math.min(width - 1, Math.floor(cx)));
  }
  return photo.planes.map((plane) => {
    const values = inside.map((i) => plane[i]);
    const [low, high] = percentiles(values, [10, 90]);
    const kept = values.filter((value) => value >= low && value <= high);
    return kept.reduce((sum, value) => sum + value, 0) / kept.length;
  }) as [number, number, number];
}

/**
 * The gain of each channel that brings neutral patches of a photo (linear RGB) nearest to their known reflectance:
 * least squares of the logarithms, which is the mean of the logarithms of their ratios. Null where there are none.
 */
export function fitPatches(photo: Raster, patches: readonly Patch[]): PatchFit | null {
  if (patches.length === 0) return null;
  const seen = patches.map((patch) => patchColour(photo, patch).map((value) => Math.max(DARKEST, value)));
  const logMean = (of: (k: number) => number) =>
    Math.exp(patches.reduce((sum, _patch, k) => sum + Math.log(of(k)), 0) / patches.length);
  const gain = logMean((k) => patches[k].reflectance / luminanceOf(seen[k][0], seen[k][1], seen[k][2]));
  const channels = [0, 1, 2].map((c) => logMean((k) => patches[k].reflectance / seen[k][c]));
  let squares = 0;
  for (const [k, { reflectance }] of patches.entries()) {
    for (let c = 0; c < 3; c++) squares += Math.log((channels[c] * seen[k][c]) / reflectance) ** 2;
  }
  return {
    gain,
    balance: channels.map((value) => value / gain) as PatchFit['balance'],
    residual: Math.sqrt(squares / (3 * patches.length)),
    errors: patches.map(({ reflectance }, k) => {
      const [r, g, b] = seen[k].map((value, c) => value * channels[c]);
      return luminanceOf(r, g, b) / reflectance - 1;
    }),
    burnt: seen.some((rgb) => Math.max(...rgb) > BURNT),
  };
}
