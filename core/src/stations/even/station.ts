import * as v from 'valibot';
import { luminance } from '../../colour/luminance.ts';
import { Raster } from '../../raster/raster.ts';
import { number } from '../../settings/settings.ts';
import { type EvenOutput, type SquareOutput, station } from '../types.ts';
import { drift } from './drift.ts';
import { type CropBox, fitLight, type LightField } from './fit.ts';

const settings = {
  amount: number({
    label: 'Amount',
    help: 'How much of the broad light and colour drift is taken out.',
    default: 1,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
};

const boxOf = (input: SquareOutput, size: number): CropBox => ({
  left: input.margins.left,
  top: input.margins.top,
  size,
});

const cropLuminance = (picture: Raster, input: SquareOutput, size: number) =>
  luminance(picture.cut(input.margins.left, input.margins.top, size, size));

const FINE_DRIFT = 0.03;
const WRONG_BEYOND = 0.09;

/** Even: divides out the broad light, so that the game's light need not fight the photo's. */
export const even = station({
  name: 'even',
  line: 'Take the photo’s own light out.',
  settings,
  decision: v.array(v.pipe(v.array(v.pipe(v.number(), v.finite())), v.length(6))),
  decidesOn: () => null,
  decide: (input: SquareOutput, _chosen, frame): LightField[] =>
    fitLight(input.picture, boxOf(input, frame.size)),
  async run(input, chosen, fields, frame, context): Promise<EvenOutput> {
    if (chosen.amount === 0) return { picture: input.picture };
    const { width, height } = input.picture;
    const box = boxOf(input, frame.size);
    const picture = Raster.filled(width, height, input.picture.channels);
    for (let c = 0; c < picture.channels; c++) {
      const from = input.picture.planes[c];
      const to = picture.planes[c];
      const [, a, b, cc, d, e] = fields[c];
      for (let y = 0; y < height; y++) {
        if ((y & 127) === 0) await context.breathe((c + y / height) / picture.channels);
        const v = (2 * (y + 0.5 - box.top)) / box.size - 1;
        const rowTerm = b * v + e * (v * v - 1 / 3) - cc / 3;
        for (let x = 0; x < width; x++) {
          const u = (2 * (x + 0.5 - box.left)) / box.size - 1;
          const log = rowTerm + u * (a + d * v + cc * u);
          to[y * width + x] = from[y * width + x] * Math.exp(-chosen.amount * log);
        }
      }
    }
    return { picture };
  },
  verdict(output, input, _chosen, _fields, frame) {
    const before = drift(cropLuminance(input.picture, input, frame.size), frame.size, frame.size);
    const after = drift(cropLuminance(output.picture, input, frame.size), frame.size, frame.size);
    const fine = Math.max(FINE_DRIFT, after.chance);
    const state = after.rms <= fine ? 'fine' : after.rms <= fine + WRONG_BEYOND ? 'look' : 'wrong';
    const byChance = after.rms > FINE_DRIFT && state === 'fine';
    return {
      state,
      brief: `drift ${(100 * after.rms).toFixed(1)} %`,
      sentence: `Light drifted by ${(100 * before.rms).toFixed(1)} % over the crop; ${(100 * after.rms).toFixed(1)} % is left${byChance ? ', no more than its unlike parts explain' : ''}.`,
      advice: state === 'fine' ? '' : 'Raise the amount, or crop away the part in another light.',
      figures: [
        { id: 'before', label: 'Drift before', value: 100 * before.rms, unit: '%' },
        { id: 'after', label: 'Drift after', value: 100 * after.rms, unit: '%', limit: 100 * fine },
      ],
    };
  },
});
