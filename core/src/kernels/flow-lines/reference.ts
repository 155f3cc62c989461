/** A picture of four interleaved channels with the flow along its shapes, both with more pixels on every side. */
export interface FlowField {
  /** Four values a pixel. */
  channels: Float32Array;
  /** Two values a pixel: a unit vector along the shapes; its sense does not matter. */
  flow: Float32Array;
  /** Pixels of the part that is made. */
  width: number;
  height: number;
  /** Pixels more on every side. At least as far as the steps go, and 2. */
  pad: number;
}

/** Added to a small number in 32 bits and taken away again it leaves the nearest whole one. */
const ROUNDING = 12582912;

/** The nearest whole number, as the twin in 32 bits finds it. */
export const wholeOf = (value: number): number => Math.fround(value + ROUNDING) - ROUNDING;

/**
 * Averages four channels along the lines of a flow (line integral convolution, Cabral & Leedom 1993; smoothing along the
 * structure as Kyprianidis & Kang 2011), both ways from each pixel in Euler steps of `step` pixels. `weights` has a weight for
 * each step, that of the pixel itself first; together with their mirror images they are scaled to 1. Four values a pixel come back.
 */
export function flowLines(field: FlowField, weights: Float32Array, step: number): Float32Array {
  const { channels, flow, width, height, pad } = field;
  const stride = width + 2 * pad;
  const apart = Math.fround(step);
  const out = new Float32Array(4 * width * height);
  const total = weights.reduce((sum, weight, k) => sum + (k === 0 ? weight : 2 * weight), 0);
  const sum = [0, 0, 0, 0];
  const add = (at: number, weight: number) => {
    for (let c = 0; c < 4; c++) sum[c] += weight * channels[4 * at + c];
  };
  /** Along the flow one way from a pixel. Places in 32 bits, so that every twin finds the same pixels. */
  const follow = (centre: number, way: number) => {
    let [dx, dy] = [way * flow[2 * centre], way * flow[2 * centre + 1]];
    let [px, py] = [0, 0];
    for (let k = 1; k < weights.length; k++) {
      px = Math.fround(px + Math.fround(dx * apart));
      py = Math.fround(py + Math.fround(dy * apart));
      const [ix, iy] = [Math.floor(px), Math.floor(py)];
      const [fx, fy] = [px - ix, py - iy];
      const at = centre + iy * stride + ix;
      add(at, weights[k] * (1 - fx) * (1 - fy));
      add(at + 1, weights[k] * fx * (1 - fy));
      add(at + stride, weights[k] * (1 - fx) * fy);
      add(at + stride + 1, weights[k] * fx * fy);
      const nearest = centre + wholeOf(py) * stride + wholeOf(px);
      const [nx, ny] = [flow[2 * nearest], flow[2 * nearest + 1]];
      const sense = nx * dx + ny * dy < 0 ? -1 : 1;
      dx = sense * nx;
      dy = sense * ny;
    }
  };
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const centre = (y + pad) * stride + x + pad;
      sum.fill(0);
      add(centre, weights[0]);
      follow(centre, 1);
      follow(centre, -1);
      for (let c = 0; c < 4; c++) out[4 * (y * width + x) + c] = sum[c] / total;
    }
  }
  return out;
}

export const reference = { flowLines };
