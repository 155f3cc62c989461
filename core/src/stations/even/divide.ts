import type { WorkContext } from '../../engine/context.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { MIRROR } from '../../raster/edges.ts';
import type { Raster } from '../../raster/raster.ts';
import { sampleBilinear } from '../../raster/sample.ts';
import type { RowLight } from './divide-rows.ts';
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

/** Rows that are divided at once. */
const ROWS = 64;

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
  { breathe, team }: Pick<WorkContext, 'breathe' | 'team'>,
): Promise<Raster> {
  const { width, height } = input;
  const out = input.mapPlanes(({ length }) => team.empty(length));
  for (let from = 0; from < height; from += ROWS) {
    await breathe(from / height);
    const to = Math.min(height, from + ROWS);
    const shade = others.length > 0 ? shadeOf(others, from, to, width, height) : null;
    for (const [c, plane] of out.planes.entries()) {
      const part = (whole: Float32Array) => whole.subarray(from * width, to * width);
      const light = rowLight(fields[c], amount, box, from, to);
      KERNELS.divideRows(part(input.planes[c]), part(plane), { width, ...light }, shade);
    }
  }
  return out;
}

/** What other fields come to along rows `from`…`to` of a picture. */
function shadeOf(others: Divided[], from: number, to: number, width: number, height: number): Float32Array {
  const out = new Float32Array((to - from) * width);
  for (let y = from; y < to; y++) {
    const shade = out.subarray((y - from) * width, (y + 1 - from) * width);
    for (const one of others) addRow(one, y, width, height, shade);
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

/** `logLight` along rows, as much of it as is taken out. */
function rowLight(
  [, a, b, c, d, e]: LightField,
  amount: number,
  box: CropBox,
  from: number,
  to: number,
): Omit<RowLight, 'width'> {
  const terms = new Float32Array(3 * (to - from));
  for (let y = from; y < to; y++) {
    const v = (2 * (y + 0.5 - box.top)) / box.height - 1;
    const level = b * v + e * (v * v - 1 / 3) - c / 3;
    terms.set([amount * level, amount * (a + d * v), amount * c], 3 * (y - from));
  }
  return { terms, start: (2 * (0.5 - box.left)) / box.width - 1, step: 2 / box.width };
}
