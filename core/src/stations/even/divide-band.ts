import type { RowLight } from '../../kernels/divide-rows/reference.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import type { Band } from '../../raster/band.ts';
import { MIRROR } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import { sampleBilinear } from '../../sampling/sample.ts';
import { task } from '../../team/task.ts';
import type { Checkpoint } from '../../work/checkpoint.ts';
import type { CropBox, LightField } from './fit.ts';
import type { ShadingField } from './side-shading.ts';

/** A field of logarithms over the picture, and how much of it is removed. */
export interface Divided {
  field: ShadingField;
  amount: number;
}

/** A picture, and the light that is divided out of it: `amount` of each channel's broad light, and other fields. */
export interface Dividing {
  planes: Float32Array[];
  box: CropBox;
  fields: LightField[];
  amount: number;
  others: Divided[];
  out: Sides;
}

/** Rows that are divided at once. */
const ROWS = 64;

/** Rows of a picture with the light divided out, in their place in `into`. */
export const divideBand = task(
  'divideBand',
  async (
    checkpoint: Checkpoint,
    { planes, box, fields, amount, others, out: { width, height } }: Dividing,
    into: Float32Array[],
    band: Band,
  ): Promise<void> => {
    for (let { from } = band; from < band.to; from += ROWS) {
      await checkpoint((from - band.from) / (band.to - band.from));
      const to = Math.min(band.to, from + ROWS);
      const shade = others.length > 0 ? shadeOf(others, from, to, width, height) : null;
      for (const [c, plane] of into.entries()) {
        const part = (whole: Float32Array) => whole.subarray(from * width, to * width);
        const light = rowLight(fields[c], amount, box, from, to);
        KERNELS.divideRows(part(planes[c]), part(plane), { width, ...light }, shade);
      }
    }
  },
);

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

/** `logLight` along rows, as much of it as is removed. */
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
