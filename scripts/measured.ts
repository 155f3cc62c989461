const ROUNDS = 3;

/** The least time of a few rounds, in ms. */
export async function best(work: () => unknown): Promise<number> {
  let least = Number.POSITIVE_INFINITY;
  for (let round = 0; round < ROUNDS; round++) {
    const start = performance.now();
    await work();
    least = Math.min(least, performance.now() - start);
  }
  return least;
}

/** sharp hands its floats out by way of 16-bit codes, so the planes fill their range. */
export const SCALE = 60000;

/** A plane of fine detail over broad light, 0 to `SCALE`. */
export const plane = (size: number): Float32Array =>
  Float32Array.from(
    { length: size * size },
    (_, i) => SCALE * (0.5 + 0.4 * Math.sin(i * 12.9898) * Math.cos(i * 0.031)),
  );
