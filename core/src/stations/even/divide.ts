import { MIRROR } from '../../raster/edges.ts';
import { Raster } from '../../raster/raster.ts';
import { sampleBilinear } from '../../raster/sample.ts';
import type { CropBox, LightField } from './fit.ts';
import type { LocalLight } from './local.ts';

/**
 * A picture with the light divided out: `amount` of each channel's broad light and `localAmount` of the
 * local one. Linear values; `breathe` is awaited between blocks of rows.
 */
export async function divideLight(
  input: Raster,
  box: CropBox,
  fields: LightField[],
  amount: number,
  local: LocalLight | null,
  localAmount: number,
  breathe: (done: number) => Promise<void>,
): Promise<Raster> {
  const { width, height } = input;
  const out = Raster.filled(width, height, input.channels);
  const shade = new Float32Array(width);
  for (let y = 0; y < height; y++) {
    if ((y & 63) === 0) await breathe(y / height);
    if (local) localRow(local, y, width, height, localAmount, shade);
    for (let c = 0; c < out.channels; c++) {
      divideRow(input.planes[c], out.planes[c], y, width, box, fields[c], amount, shade);
    }
  }
  return out;
}

function localRow(
  { across, values }: LocalLight,
  y: number,
  width: number,
  height: number,
  amount: number,
  into: Float32Array,
): void {
  const row = ((y + 0.5) * across) / height - 0.5;
  for (let x = 0; x < width; x++) {
    const column = ((x + 0.5) * across) / width - 0.5;
    into[x] = amount * sampleBilinear(values, across, across, column, row, MIRROR);
  }
}

function divideRow(
  from: Float32Array,
  to: Float32Array,
  y: number,
  width: number,
  box: CropBox,
  [, a, b, c, d, e]: LightField,
  amount: number,
  shade: Float32Array,
): void {
  const v = (2 * (y + 0.5 - box.top)) / box.size - 1;
  const rowTerm = b * v + e * (v * v - 1 / 3) - c / 3;
  for (let x = 0; x < width; x++) {
    const u = (2 * (x + 0.5 - box.left)) / box.size - 1;
    const log = rowTerm + u * (a + d * v + c * u);
    to[y * width + x] = from[y * width + x] * Math.exp(-amount * log - shade[x]);
  }
}
