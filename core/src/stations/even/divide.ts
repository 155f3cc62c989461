import type { Raster } from '../../raster/raster.ts';
import type { WorkContext } from '../../team/context.ts';
import { inBands } from '../../team/in-bands.ts';
import type { Divided } from './divide-band.ts';
import { divideBand } from './divide-band.ts';
import type { CropBox, LightField } from './fit.ts';

/**
 * A picture with the light divided out: `amount` of each channel's broad light, and of other fields as much as
 * they say. Linear values; the team shares the rows, and `checkpoint` is awaited between blocks of them.
 */
export function divideLight(
  input: Raster,
  box: CropBox,
  fields: LightField[],
  amount: number,
  others: Divided[],
  { checkpoint, team }: Pick<WorkContext, 'checkpoint' | 'team'>,
): Promise<Raster> {
  const dividing = { box, fields, amount, others, out: { width: input.width, height: input.height } };
  return inBands(divideBand, input, dividing, team, checkpoint);
}
