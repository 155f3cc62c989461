/** Light this high above the surface, as a share of its length. */
const RISE = 0.55;
const AMBIENT = 0.1;

/** Draws normals (x right, y as `green` says, z out; −1..1) in grey under a light from `degrees`, clockwise from the top. */
export function litSlopes(
  out: ImageData,
  planes: readonly Float32Array[],
  width: number,
  green: 1 | -1,
  degrees: number,
): void {
  const turn = (degrees * Math.PI) / 180;
  const flat = Math.sqrt(1 - RISE * RISE);
  const [lx, ly] = [Math.sin(turn) * flat, Math.cos(turn) * flat * green];
  const [nx, ny, nz] = planes;
  const { data } = out;
  for (let y = 0, k = 0; y < out.height; y++) {
    for (let x = 0; x < out.width; x++, k += 4) {
      const i = y * width + x;
      const facing = Math.max(0, nx[i] * lx + ny[i] * ly + nz[i] * RISE);
      const value = 255 * Math.sqrt(AMBIENT + (1 - AMBIENT) * 0.75 * facing);
      data[k] = value;
      data[k + 1] = value;
      data[k + 2] = value;
      data[k + 3] = 255;
    }
  }
}
