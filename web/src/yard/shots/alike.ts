/** Sides of the small pictures that are compared. */
const SIDES = { width: 48, height: 36 };
/** Pictures of which each correlates more than this with another may show one surface; */
const ALIKE = 0.3;
/** above this the two are the same picture. */
const SAME = 0.9995;
const BLACK = 2;

/** A picture by its sides, and small as the logarithm of its grey without what is broad; null where the browser cannot read it. */
async function smallOf(file: File): Promise<{ sides: string; values: Float64Array } | null> {
  try {
    const bitmap = await createImageBitmap(file);
    const canvas = new OffscreenCanvas(SIDES.width, SIDES.height);
    const context = canvas.getContext('2d', { willReadFrequently: true })!;
    context.drawImage(bitmap, 0, 0, SIDES.width, SIDES.height);
    const sides = `${bitmap.width} × ${bitmap.height}`;
    bitmap.close();
    const { data } = context.getImageData(0, 0, SIDES.width, SIDES.height);
    const log = Float64Array.from({ length: SIDES.width * SIDES.height }, (_, i) =>
      Math.log(data[4 * i] + data[4 * i + 1] + data[4 * i + 2] + BLACK),
    );
    return { sides, values: withoutSlope(log) };
  } catch {
    return null;
  }
}

/** Values less the slope that fits them best, mean 0, length 1. */
function withoutSlope(values: Float64Array): Float64Array {
  const { width, height } = SIDES;
  const [u, v] = [(width - 1) / 2, (height - 1) / 2];
  let [sum, across, down, xx, yy] = [0, 0, 0, 0, 0];
  for (const [i, value] of values.entries()) {
    const [x, y] = [(i % width) - u, Math.floor(i / width) - v];
    sum += value;
    across += value * x;
    down += value * y;
    xx += x * x;
    yy += y * y;
  }
  const flat = values.map(
    (value, i) =>
      value -
      sum / values.length -
      (across / xx) * ((i % width) - u) -
      (down / yy) * (Math.floor(i / width) - v),
  );
  const length = Math.sqrt(flat.reduce((all, value) => all + value * value, 0)) || 1;
  return flat.map((value) => value / length);
}

/**
 * Whether several pictures may be shots of one surface in different light: of one size, and each much like another. Only then it is asked;
 * pictures that no browser reads are never taken for it.
 */
export async function mayBeShots(files: readonly File[]): Promise<boolean> {
  const small = await Promise.all(files.map(smallOf));
  const first = small[0];
  if (!first || small.some((one) => one?.sides !== first.sides)) return false;
  const best = small.map((one, k) => {
    const correlations = small.map((other, n) =>
      n === k ? -1 : one!.values.reduce((sum, value, i) => sum + value * other!.values[i], 0),
    );
    return Math.max(...correlations.filter((value) => value < SAME));
  });
  return Math.min(...best) > ALIKE;
}
