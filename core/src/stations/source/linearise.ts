import { linearTable, srgbToLinear } from '../../colour/srgb.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { codesRaster, fullOf } from '../../pixels/codes-raster.ts';
import type { Pixels } from '../../pixels/pixels.ts';
import { mapped } from '../../planes/mapped.ts';
import { Raster } from '../../raster/raster.ts';
import { ALONE, type Team } from '../../team/team.ts';
import { type Given, type GivenMap, type GivenRefs, isGivenColour } from '../../tile/given.ts';
import type { SourceInput, SourceOutput } from './output.ts';

/** How values are meant: as the file's kind has it (floats linear, codes sRGB), as sRGB colour, or as linear data. */
export const READS_AS = ['file', 'colour', 'data'] as const;
export type ReadsAs = (typeof READS_AS)[number];

/** Whether samples are averaged and read as they stand, without a transfer curve. */
export const isLinear = (isFloat: boolean, reads: ReadsAs): boolean =>
  reads === 'data' || (reads === 'file' && isFloat);

/** A float as a value that can be worked with: what is not a number, or below zero, is none. */
const sound = (value: number): number => (value > 0 && value < 1e6 ? value : value >= 1e6 ? 1e6 : 0);

/** Heights in floats may have any unit: where they leave 0..1 their range becomes it. */
function heightRaster(pixels: Pixels, channel: number): Raster {
  const raster = codesRaster(pixels, 1, channel);
  const [plane] = raster.planes;
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < plane.length; i++) {
    if (!Number.isFinite(plane[i])) plane[i] = 0;
    low = Math.min(low, plane[i]);
    high = Math.max(high, plane[i]);
  }
  if (low >= 0 && high <= 1) return raster;
  const scale = high > low ? 1 / (high - low) : 0;
  return raster.mapPlanes((values) => mapped(values, (value) => (value - low) * scale));
}

/** A given colour, linear: codes are sRGB, floats linear already. */
function colourRaster(pixels: Pixels): Raster {
  const codes = clampedRaster(codesRaster(pixels, 3));
  if (pixels.data instanceof Float32Array) return codes;
  return codes.mapPlanes((plane) => mapped(plane, srgbToLinear));
}

const clampedRaster = (raster: Raster) =>
  raster.mapPlanes((plane) => mapped(plane, (value) => Math.min(1, sound(value))));

/** Inside, the green of every normal map points up. A map of one plane lies in the channel that is named. */
function givenRaster(map: GivenMap, pixels: Pixels, green: 'up' | 'down', channel: number): Raster {
  if (map === 'height') return heightRaster(pixels, channel);
  if (isGivenColour(map)) return colourRaster(pixels);
  if (map !== 'normal') return clampedRaster(codesRaster(pixels, 1, channel));
  const codes = clampedRaster(codesRaster(pixels, 3));
  return green === 'up'
    ? codes
    : codes.mapPlanes((plane, c) => (c === 1 ? mapped(plane, (value) => 1 - value) : plane));
}

/** Codes as they stand, 0..1. */
export const straightTable = (full: number) =>
  Float32Array.from({ length: full + 1 }, (_, code) => code / full);

/** Linear floats of decoded samples; alpha set aside. Codes of 8 or 16 bit by the exact sRGB curve unless they are data. */
export function linearise(
  input: Pick<SourceInput, 'pixels' | 'given'>,
  { reads, givenGreen, given: refs = {} }: { reads: ReadsAs; givenGreen: 'up' | 'down'; given?: GivenRefs },
  team: Team = ALONE,
): SourceOutput {
  const given: Given = {};
  for (const [map, pixels] of Object.entries(input.given) as [GivenMap, Pixels][]) {
    given[map] = givenRaster(map, pixels, givenGreen, refs[map]?.channel ?? 0);
  }
  const { data, width, height, channels } = input.pixels;
  const planes = [0, 1, 2].map(() => team.empty(width * height));
  const picture = new Raster(width, height, planes);
  const [r, g, b] = planes;
  const alpha = channels === 4 ? new Float32Array(width * height) : null;
  const full = fullOf(data);
  const isFloat = data instanceof Float32Array;
  if (!isFloat) {
    const curve = isLinear(false, reads) ? straightTable(full) : linearTable(full === 65535 ? 16 : 8);
    KERNELS.takeCodes(data, channels, curve, planes);
  } else {
    const value = isLinear(true, reads) ? sound : (code: number) => srgbToLinear(Math.min(1, sound(code)));
    for (let i = 0, at = 0; i < r.length; i++, at += channels) {
      r[i] = value(data[at]);
      g[i] = value(data[at + 1]);
      b[i] = value(data[at + 2]);
    }
  }
  if (alpha) for (let i = 0; i < alpha.length; i++) alpha[i] = Math.min(1, sound(data[4 * i + 3] / full));
  return {
    picture,
    alpha,
    given,
    shots: null,
    originalWidth: input.pixels.originalWidth,
    originalHeight: input.pixels.originalHeight,
  };
}
