import { linearToOklab } from '../../colour/oklab.ts';

/** L, a and b of three planes of linear RGB (see `linearToOklab`). */
export function oklabPlanes([r, g, b]: readonly Float32Array[]): Float32Array[] {
  const out = [r, g, b].map((plane) => new Float32Array(plane.length));
  for (let i = 0; i < r.length; i++) {
    const [L, a, bb] = linearToOklab(r[i], g[i], b[i]);
    out[0][i] = L;
    out[1][i] = a;
    out[2][i] = bb;
  }
  return out;
}

export const reference = { oklabPlanes };
