import type { Raster } from '../../../raster/raster.ts';

/** Tone broader than this share of the edge may be spread without being seen. */
const TONE = 1 / 24;
/** What is finer than this share of the edge is grain of the sensor. */
const GRAIN = 1 / 320;
/** Contrast of sRGB-encoded values that is not seen. */
const UNSEEN = 0.012;
/** The usual texture is measured on every eighth line. */
const LINE_STEP = 8;

/** Mean of values within a distance; the line ends, since the crop is not joined yet. */
function averaged(line: Float64Array, reach: number): Float64Array {
  const sums = new Float64Array(line.length + 1);
  for (const [i, value] of line.entries()) sums[i + 1] = sums[i] + value;
  return line.map((_, i) => {
    const from = Math.max(0, i - reach);
    const to = Math.min(line.length, i + reach + 1);
    return (sums[to] - sums[from]) / (to - from);
  });
}

/** Strength (RMS) of the texture on a line: neither its broad tone nor its finest grain. */
function textureOf(line: Float64Array): number {
  const soft = averaged(line, Math.round(GRAIN * line.length));
  const broad = averaged(soft, Math.round(TONE * line.length));
  let sum = 0;
  for (const [i, value] of soft.entries()) sum += (value - broad[i]) ** 2;
  return Math.sqrt(sum / line.length);
}

/**
 * How strongly the texture of each edge of a crop ghosts on the other side once the difference of both was spread over it: 0
 * where only their tone differs, about 1 where they have nothing in common. It is the texture of that difference, over the
 * texture of any two lines of the crop; the larger of the joined axes. sRGB-encoded planes, 0..1, of a crop not joined yet.
 */
export function ghosting({ width, height, planes }: Raster, axes: { x: boolean; y: boolean }): number {
  const alongAxis = (across: number, along: number, strideAcross: number, strideAlong: number): number => {
    const line = (plane: Float32Array, at: number) =>
      Float64Array.from({ length: along }, (_, i) => plane[at * strideAcross + i * strideAlong]);
    let difference = 0;
    let usual = 0;
    for (const plane of planes) {
      const last = line(plane, across - 1);
      difference += textureOf(line(plane, 0).map((value, i) => value - last[i])) ** 2;
      for (let at = 0; at < across; at += LINE_STEP) {
        usual += (LINE_STEP * 2 * textureOf(line(plane, at)) ** 2) / across;
      }
    }
    const seen = Math.max(0, Math.sqrt(difference / planes.length) - UNSEEN);
    return seen / Math.sqrt(Math.max(1e-12, usual / planes.length));
  };
  return Math.max(
    axes.x ? alongAxis(width, height, 1, width) : 0,
    axes.y ? alongAxis(height, width, width, 1) : 0,
  );
}
