import { MIRROR } from '../../raster/edges.ts';
import { Raster } from '../../raster/raster.ts';
import { sampleBilinear } from '../../raster/sample.ts';
import type { CropBox, LightField } from './fit.ts';
import type { LocalLight } from './local.ts';
import type { ShadingField } from './side-shading.ts';

/** A field of logarithms over the picture, and how much of it is taken out. */
export interface Divided {
  field: ShadingField;
  amount: number;
}

/** Softer light as a field over the picture. */
export const fieldOf = ({ across, values }: LocalLight): ShadingField => ({
  width: across,
  height: across,
  values,
});

/**
 * A picture with the light divided out: `amount` of each channel's broad light, and of other fields as much as
 * they say. Linear values; `breathe` is awaited between blocks of rows.
 */
export async function divideLight(
  input: Raster,
  box: CropBox,
  fields: LightField[],
  amount: number,
  others: Divided[],
  breathe: (done: number) => Promise<void>,
): Promise<Raster> {
  const { width, height } = input;
  const out = Raster.filled(width, height, input.channels);
  const shade = new Float32Array(width);
  for (let y = 0; y < height; y++) {
    if ((y & 63) === 0) await breathe(y / height);
    shade.fill(0);
    for (const one of others) addRow(one, y, width, height, shade);
    for (let c = 0; c < out.channels; c++) {
      divideRow(input.planes[c], out.planes[c], y, width, box, fields[c], amount, shade);
    }
  }
  return out;
}

function addRow(
  { field, amount }: Divided,
  y: number,
  width: number,
  height: number,
  to: Float32Array,
): void {
  const row = ((y + 0.5) * field.height) / height - 0.5;
  for (let x = 0; x < width; x++) {
    const column = ((x + 0.5) * field.width) / width - 0.5;
    to[x] += amount * sampleBilinear(field.values, field.width, field.height, column, row, MIRROR);
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
  const v = (2 * (y + 0.5 - box.top)) / box.height - 1;
  const rowTerm = b * v + e * (v * v - 1 / 3) - c / 3;
  for (let x = 0; x < width; x++) {
    const u = (2 * (x + 0.5 - box.left)) / box.width - 1;
    const log = rowTerm + u * (a + d * v + c * u);
    to[y * width + x] = from[y * width + x] * Math.exp(-amount * log - shade[x]);
  }
}
