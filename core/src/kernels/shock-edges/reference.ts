import { wholeOf } from '../flow-lines/reference.ts';

/** A picture of four interleaved channels with more pixels on every side, and what decides where its edges are sharpened. */
export interface ShockField {
  /** Four values a pixel; the first is lightness. */
  channels: Float32Array;
  /** Two values a pixel of the part that is made: a unit vector along the shapes. */
  flow: Float32Array;
  /** One value a pixel of the part that is made, −1..1: above 0 on the bright side of an edge, below 0 on the dark one. */
  signs: Float32Array;
  width: number;
  height: number;
  /** Pixels more on every side. At least the reach and 2. */
  pad: number;
}

/** Samples on each side, pixels from one to the next. */
export interface ShockReach {
  count: number;
  step: number;
}

/** Share of the way that a pixel is moved where its sign is 1. */
export const SHARE = 0.8;
/** Signs nearer to 0 than this leave a pixel as it is. */
export const LEAST = 0.05;

/** The brightest (sign above 0) or darkest pixel within reach across the flow, by its place; the pixel itself where there is none. */
function extremeAcross(
  channels: Float32Array,
  centre: number,
  stride: number,
  [nx, ny]: readonly [number, number],
  count: number,
  sign: number,
): number {
  let chosen = centre;
  let best = channels[4 * centre];
  let [ox, oy] = [0, 0];
  for (let t = 1; t <= count; t++) {
    ox = Math.fround(ox + nx);
    oy = Math.fround(oy + ny);
    for (const way of [1, -1]) {
      const at = centre + wholeOf(way * oy) * stride + wholeOf(way * ox);
      const value = channels[4 * at];
      if (sign > 0 ? value > best : value < best) {
        best = value;
        chosen = at;
      }
    }
  }
  return chosen;
}

/**
 * Sharpens edges (shock filter, Osher & Rudin 1990): across the flow a pixel on the bright side moves towards the brightest
 * one within reach, one on the dark side towards the darkest, all channels from the same pixel. Four values a pixel come back.
 */
export function shockEdges(field: ShockField, reach: ShockReach): Float32Array {
  const { channels, flow, signs, width, height, pad } = field;
  const stride = width + 2 * pad;
  const step = Math.fround(reach.step);
  const out = new Float32Array(4 * width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const place = y * width + x;
      const centre = (y + pad) * stride + x + pad;
      const sign = signs[place];
      const across = [Math.fround(-flow[2 * place + 1] * step), Math.fround(flow[2 * place] * step)] as const;
      const chosen =
        Math.abs(sign) < LEAST ? centre : extremeAcross(channels, centre, stride, across, reach.count, sign);
      const amount = SHARE * Math.abs(sign);
      for (let c = 0; c < 4; c++) {
        const own = channels[4 * centre + c];
        out[4 * place + c] = own + amount * (channels[4 * chosen + c] - own);
      }
    }
  }
  return out;
}

export const reference = { shockEdges };
