/** So many values tell a share, a mean or a percentile to far less than is shown. */
const ENOUGH = 2 ** 20;

/**
 * How far apart the values lie that a figure is read from: 1 for planes of up to two millions, beyond that so that about a
 * million are read. Odd, so that every column of a picture has its turn.
 */
export const readStep = (count: number): number => (count < 2 * ENOUGH ? 1 : Math.floor(count / ENOUGH) | 1);

/** The values of a plane that its figures are read from: the plane itself where it is not large. */
export function thinned<T extends Float32Array | Uint8Array>(plane: T): T {
  const step = readStep(plane.length);
  if (step === 1) return plane;
  const out = plane.slice(0, Math.ceil(plane.length / step)) as T;
  for (let i = 0, from = 0; i < out.length; i++, from += step) out[i] = plane[from];
  return out;
}
