import * as v from 'valibot';
import { luminance } from '../../colour/luminance.ts';
import type { Raster } from '../../raster/raster.ts';
import { percentiles } from '../../raster/statistics.ts';
import { number } from '../../settings/settings.ts';
import { type EvenOutput, type SquareOutput, station } from '../types.ts';
import { divideLight } from './divide.ts';
import { drift } from './drift.ts';
import { type CropBox, fitLight, type LightField } from './fit.ts';
import { localLight } from './local.ts';
import { levelTone } from './tone.ts';

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
  colour: number({
    label: 'Colour of it',
    help: 'How much of the light’s drift in colour goes with its drift in lightness: 0 leaves colours as they are.',
    default: 1,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  local: number({
    label: 'Local',
    help: 'How much of softer unevenness, over about an eighth of the crop, is taken out as well.',
    default: 0,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  liftDarks: number({
    label: 'Lift darks',
    help: 'Brings what is darker than the middle nearer to it: shadows in hollows.',
    group: 'Tone',
    default: 0,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  holdLights: number({
    label: 'Hold lights',
    help: 'Brings what is lighter than the middle nearer to it: sheen and glare.',
    group: 'Tone',
    default: 0,
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

/** What Even settles: the light, and the middle of the crop's luminance about which tone is levelled. */
interface EvenDecision {
  fields: LightField[];
  twoToned: boolean;
  middle: number;
}

/** A channel's light with less of its own colour: towards the mean of all channels. */
const shadeOf = (field: LightField, fields: LightField[], colour: number): LightField =>
  field.map((value, n) => {
    const grey = fields.reduce((sum, one) => sum + one[n], 0) / fields.length;
    return grey + colour * (value - grey);
  });

/** Even: divides out the broad light, so that the game's light need not fight the photo's. */
export const even = station({
  name: 'even',
  line: 'Take the photo’s own light out.',
  settings,
  decision: v.strictObject({
    fields: v.array(v.pipe(v.array(v.pipe(v.number(), v.finite())), v.length(6))),
    twoToned: v.boolean(),
    middle: v.number(),
  }),
  decidesOn: () => null,
  decide(input: SquareOutput, _chosen, frame): EvenDecision {
    const found = fitLight(input.picture, boxOf(input, frame.size));
    return { ...found, middle: percentiles(cropLuminance(input.picture, input, frame.size), [50])[0] };
  },
  async run(input, chosen, { fields, middle }, frame, context): Promise<EvenOutput> {
    const box = boxOf(input, frame.size);
    let { picture } = input;
    if (chosen.amount > 0 || chosen.local > 0) {
      const kept = fields.map((field) => shadeOf(field, fields, chosen.colour));
      const local = chosen.local > 0 ? localLight(input.picture, box, fields) : null;
      picture = await divideLight(picture, box, kept, chosen.amount, local, chosen.local, context.breathe);
    }
    if (chosen.liftDarks > 0 || chosen.holdLights > 0) {
      picture = await levelTone(picture, middle, chosen.liftDarks, chosen.holdLights, context.breathe);
    }
    return { picture };
  },
  verdict(output, input, chosen, { twoToned }, frame) {
    const before = drift(cropLuminance(input.picture, input, frame.size), frame.size, frame.size);
    const after = drift(cropLuminance(output.picture, input, frame.size), frame.size, frame.size);
    const fine = Math.max(FINE_DRIFT, after.chance);
    const state = after.rms <= fine ? 'fine' : after.rms <= fine + WRONG_BEYOND ? 'look' : 'wrong';
    const byChance = after.rms > FINE_DRIFT && state === 'fine';
    return {
      state,
      brief: `drift ${(100 * after.rms).toFixed(1)} %`,
      sentence: `Light drifted by ${(100 * before.rms).toFixed(1)} % over the crop; ${(100 * after.rms).toFixed(1)} % is left${byChance ? ', no more than its unlike parts explain' : ''}.`,
      advice: [
        twoToned
          ? 'The surface has two tones: only what changes within each is taken for light. Lower the amount if one of them pales.'
          : '',
        state === 'fine'
          ? ''
          : chosen.amount < 1
            ? 'Raise the amount, or crop away the part in another light.'
            : 'Try the local amount, or crop away the part in another light.',
      ]
        .filter(Boolean)
        .join(' '),
      figures: [
        { id: 'before', label: 'Drift before', value: 100 * before.rms, unit: '%' },
        { id: 'after', label: 'Drift after', value: 100 * after.rms, unit: '%', limit: 100 * fine },
      ],
    };
  },
});
