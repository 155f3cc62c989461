import { linearTable, linearToSrgb } from '../colour/srgb.ts';
import type { Pixels } from './pixels.ts';

const ENCODE_STEPS = 65536;
let encode: Float32Array | null = null;

/** sRGB codes 0..65535 by the square root of linear light, linear between entries. */
function encodeTable(): Float32Array {
  if (!encode) {
    encode = new Float32Array(ENCODE_STEPS + 2);
    for (let i = 0; i < encode.length; i++) encode[i] = linearToSrgb((i / ENCODE_STEPS) ** 2) * 65535;
  }
  return encode;
}

/**
 * Adds a row of pixels, linear by a table of their codes and weighed by alpha, to the sums of blocks: red, green, blue, weight.
 */
function addRow(
  { data, width, channels }: Pixels,
  linear: Float32Array,
  y: number,
  factor: number,
  sums: Float64Array,
): void {
  let at = y * width * channels;
  for (let s = 0; s < sums.length; s += 4) {
    let r = 0;
    let g = 0;
    let b = 0;
    let weight = 0;
    for (let i = 0; i < factor; i++, at += channels) {
      const a = channels === 4 ? data[at + 3] : 1;
      r += linear[data[at]] * a;
      g += linear[data[at + 1]] * a;
      b += linear[data[at + 2]] * a;
      weight += a;
    }
    sums[s] += r;
    sums[s + 1] += g;
    sums[s + 2] += b;
    sums[s + 3] += weight;
  }
}

/** The mean of a block as a 16-bit sRGB code. */
function codeOf(sum: number, weight: number, codes: Float32Array): number {
  const mean = weight > 0 ? sum / weight : 0;
  const place = Math.sqrt(mean) * ENCODE_STEPS;
  const low = Math.floor(place);
  return Math.floor(codes[low] + (codes[low + 1] - codes[low]) * (place - low) + 0.5);
}

/**
 * The one filter by which large sources are reduced before work starts: the mean of
 * `factor` × `factor` pixels in linear light, colour weighed by alpha, stored as 16-bit sRGB codes (floats
 * as floats).
 * Incomplete blocks at the right and lower border are left out.
 */
export function reducePixels(pixels: Pixels, factor: number, kind: 'colour' | 'data' = 'colour'): Pixels {
  if (factor <= 1) return pixels;
  const { data, channels } = pixels;
  if (data instanceof Float32Array) return reduceFloats(pixels, data, factor, kind);
  if (kind === 'data') return reduceData(pixels, factor);
  const width = Math.floor(pixels.width / factor);
  const height = Math.floor(pixels.height / factor);
  const codes = encodeTable();
  const wide = data instanceof Uint16Array;
  const linear = linearTable(wide ? 16 : 8);
  const full = wide ? 65535 : 255;
  const out = new Uint16Array(width * height * channels);
  const sums = new Float64Array(width * 4);
  for (let y = 0; y < height; y++) {
    sums.fill(0);
    for (let j = 0; j < factor; j++) addRow(pixels, linear, y * factor + j, factor, sums);
    for (let x = 0; x < width; x++) {
      const to = (y * width + x) * channels;
      const weight = sums[4 * x + 3];
      for (let c = 0; c < 3; c++) out[to + c] = codeOf(sums[4 * x + c], weight, codes);
      if (channels === 4) out[to + 3] = Math.round((weight / (factor * factor * full)) * 65535);
    }
  }
  return {
    width,
    height,
    channels,
    data: out,
    originalWidth: pixels.originalWidth,
    originalHeight: pixels.originalHeight,
  };
}

/** The mean of codes as they stand, for data maps: no curve, no weighing. */
function reduceData(pixels: Pixels, factor: number): Pixels {
  const { data, channels } = pixels;
  const width = Math.floor(pixels.width / factor);
  const height = Math.floor(pixels.height / factor);
  const scale = (data instanceof Uint16Array ? 1 : 257) / (factor * factor);
  const out = new Uint16Array(width * height * channels);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      for (let c = 0; c < channels; c++) {
        let sum = 0;
        for (let j = 0; j < factor; j++) {
          const at = ((y * factor + j) * pixels.width + x * factor) * channels + c;
          for (let i = 0; i < factor; i++) sum += data[at + i * channels];
        }
        out[(y * width + x) * channels + c] = Math.floor(sum * scale + 0.5);
      }
    }
  }
  return { ...pixels, width, height, data: out };
}

/** The mean of floats, which are linear; colour weighed by alpha. */
function reduceFloats(pixels: Pixels, data: Float32Array, factor: number, kind: 'colour' | 'data'): Pixels {
  const { channels } = pixels;
  const width = Math.floor(pixels.width / factor);
  const height = Math.floor(pixels.height / factor);
  const out = new Float32Array(width * height * channels);
  const weighs = kind === 'colour' && channels === 4;
  /** Adds one pixel to a block; its weight. */
  const add = (at: number, to: number) => {
    const share = weighs ? data[at + 3] : 1;
    for (let c = 0; c < 3; c++) out[to + c] += share * data[at + c];
    if (channels === 4) out[to + 3] += data[at + 3] / (factor * factor);
    return share;
  };
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const to = (y * width + x) * channels;
      let weight = 0;
      for (let j = 0; j < factor; j++) {
        const row = ((y * factor + j) * pixels.width + x * factor) * channels;
        for (let i = 0; i < factor; i++) weight += add(row + i * channels, to);
      }
      for (let c = 0; c < 3; c++) out[to + c] = weight > 0 ? out[to + c] / weight : 0;
    }
  }
  return { ...pixels, width, height, data: out };
}
