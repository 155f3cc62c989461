/** Below this a normal lies so flat that its slope would be one without end. */
export const LEAST_Z = 1e-4;

/** The slopes of normals added to those of others, as unit vectors again in place of the second: three planes x, y and z each. */
export function addSlopes(base: readonly Float32Array[], added: readonly Float32Array[]): void {
  const [ax, ay, az] = base;
  const [bx, by, bz] = added;
  for (let i = 0; i < ax.length; i++) {
    const za = Math.max(LEAST_Z, az[i]);
    const x = ax[i] / za + bx[i] / bz[i];
    const y = ay[i] / za + by[i] / bz[i];
    const length = Math.sqrt(x * x + y * y + 1);
    bx[i] = x / length;
    by[i] = y / length;
    bz[i] = 1 / length;
  }
}

export const reference = { addSlopes };
