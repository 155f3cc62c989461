import * as v from 'valibot';
import { luminanceOf } from '../../colour/luminance-of.ts';
import { luminance } from '../../planes/luminance.ts';
import { Raster } from '../../raster/raster.ts';
import type { Sides } from '../../raster/sides.ts';
import { choice, data, group, number } from '../../settings/kinds.ts';
import { percentiles } from '../../statistics/statistics.ts';
import { runSteps } from '../../work/steps.ts';
import type { SquareOutput } from '../square/output.ts';
import { square } from '../square/station.ts';
import { station } from '../station.ts';
import { divideLight } from './divide.ts';
import type { Divided } from './divide-band.ts';
import { driftAt } from './drift.ts';
import { type CropBox, fitLight, type LightField } from './fit.ts';
import { type LeaveStroke, leaveMask, leaveSchema, leftAlone } from './leave.ts';
import { fieldOf, localLight } from './local.ts';
import type { EvenOutput } from './output.ts';
import { findSideLight, type SideLight, sideLightSchema } from './side-light.ts';
import { sideShading } from './side-shading.ts';
import { levelTone } from './tone.ts';
import { views } from './views.ts';

const GROUPS = {
  sideLight: group({ id: 'side-light', title: 'Side light', collapsed: true }),
  leaveAlone: group({ id: 'leave-alone', title: 'Leave alone', collapsed: true }),
  tone: group({ id: 'tone', title: 'Tone' }),
};

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
    label: 'Colour cast',
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
  shading: number({
    label: 'Side shading',
    help: 'How much of the shading by light from one side is taken out of bumps and hollows.',
    group: GROUPS.sideLight,
    default: 0,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  lightFrom: choice({
    ofPicture: true,
    label: 'Light axis',
    help: 'Along which line the side light falls: found in the picture, or set by hand.',
    group: GROUPS.sideLight,
    default: 'found',
    options: ['found', 'hand'],
    names: ['Found', 'By hand'],
  }),
  lightDegrees: number({
    ofPicture: true,
    label: 'By hand',
    help: 'The line along which the side light falls, clockwise from level; used where it is set by hand.',
    group: GROUPS.sideLight,
    default: 0,
    min: -90,
    max: 90,
    step: 1,
    unit: '°',
  }),
  leave: data<LeaveStroke[]>({
    onSheets: true,
    ofPicture: true,
    label: 'Painted',
    help: 'Strokes over what is to be left as it is, in shares of the crop.',
    group: GROUPS.leaveAlone,
    default: [],
    schema: leaveSchema,
    example: '[{"points":[[0.2,0.3],[0.4,0.3]],"radius":0.05,"softness":0.5,"erase":false}]',
    words: (value) =>
      value.length === 0 ? 'nothing' : value.length === 1 ? '1 stroke' : `${value.length} strokes`,
  }),
  leaveFrom: number({
    ofPicture: true,
    label: 'Protect from',
    help: 'Lower limit of the luminance that Even leaves alone; off while both are equal.',
    group: GROUPS.leaveAlone,
    default: 0,
    min: 0,
    max: 1,
    step: 0.005,
    unit: 'Y',
  }),
  leaveTo: number({
    ofPicture: true,
    label: 'Protect to',
    help: 'Upper limit of the luminance that Even leaves alone.',
    group: GROUPS.leaveAlone,
    default: 0,
    min: 0,
    max: 1,
    step: 0.005,
    unit: 'Y',
  }),
  liftDarks: number({
    label: 'Lift darks',
    help: 'Brings what is darker than the middle nearer to it: shadows in hollows.',
    group: GROUPS.tone,
    default: 0,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  holdLights: number({
    label: 'Hold lights',
    help: 'Brings what is lighter than the middle nearer to it: sheen and glare.',
    group: GROUPS.tone,
    default: 0,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
};

const boxOf = ({ margins }: SquareOutput, { width, height }: Sides): CropBox => ({
  left: margins.left,
  top: margins.top,
  width,
  height,
});

const cropLuminance = (picture: Raster, { margins }: SquareOutput, { width, height }: Sides) =>
  new Raster(picture.width, picture.height, [luminance(picture)]).cut(
    margins.left,
    margins.top,
    width,
    height,
  ).planes[0];

const cropDrift = ({ width, planes }: Raster, { margins }: SquareOutput, sides: Sides) => {
  const [r, g, b] = planes;
  const at = (x: number, y: number) => {
    const i = (y + margins.top) * width + x + margins.left;
    return luminanceOf(r[i], g[i], b[i]);
  };
  return driftAt(at, sides.width, sides.height);
};

const FINE_DRIFT = 0.03;
const WRONG_BEYOND = 0.09;
/** Below this no line of side light rules. */
const PLAIN = 0.06;
/** Above this it is not light alone. */
const GRAINY = 0.35;

/** What Even settles: the light, and the middle of the crop's luminance about which tone is levelled. */
interface EvenDecision {
  fields: LightField[];
  twoToned: boolean;
  middle: number;
  /** Light from the side, sought where it is to be removed. */
  side: SideLight | null;
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
  line: 'Remove the photo’s lighting.',
  settings,
  reads: [square],
  replaces: {
    station: square,
    unless: 'join.before',
    output: (earlier: SquareOutput, { picture }: EvenOutput): SquareOutput => ({ ...earlier, picture }),
  },
  views,
  shows: 'evened',
  weight: 6,
  of: 'photo',
  decision: v.strictObject({
    fields: v.array(v.pipe(v.array(v.pipe(v.number(), v.finite())), v.length(6))),
    twoToned: v.boolean(),
    middle: v.number(),
    side: v.nullable(sideLightSchema),
  }),
  decidesOn: ({ leave, leaveFrom, leaveTo, shading, lightFrom, lightDegrees }) => [
    leave,
    leaveTo > leaveFrom ? [leaveFrom, leaveTo] : null,
    shading > 0 ? [lightFrom, lightFrom === 'hand' ? lightDegrees : null] : null,
  ],
  async decide(input: SquareOutput, chosen, frame, { checkpoint }): Promise<EvenDecision> {
    const box = boxOf(input, frame);
    const { picture } = input;
    const byHand = chosen.lightFrom === 'hand' ? chosen.lightDegrees : null;
    return {
      ...(await runSteps(fitLight(picture, box, leaveMask(picture, box, chosen)), checkpoint)),
      middle: percentiles(cropLuminance(picture, input, frame), [50])[0],
      side: chosen.shading > 0 ? await runSteps(findSideLight(picture, byHand), checkpoint) : null,
    };
  },
  async run(input, chosen, { fields, middle, side }, frame, context): Promise<EvenOutput> {
    const box = boxOf(input, frame);
    let { picture } = input;
    const isDivided = chosen.amount > 0 || chosen.local > 0 || side !== null;
    const isLevelled = chosen.liftDarks > 0 || chosen.holdLights > 0;
    const { leave, leaveFrom, leaveTo } = chosen;
    const mask =
      isDivided || isLevelled
        ? await context.part('leave', [leave, leaveFrom, leaveTo], () => leaveMask(picture, box, chosen))
        : null;
    if (isDivided) {
      const kept = fields.map((field) => shadeOf(field, fields, chosen.colour));
      const others: Divided[] = [];
      if (chosen.local > 0) {
        others.push({ field: fieldOf(localLight(picture, box, fields, mask)), amount: chosen.local });
      }
      if (side) {
        const field = await context.part('side shading', side, () =>
          runSteps(sideShading(picture, side), context.checkpoint),
        );
        others.push({ field, amount: chosen.shading });
      }
      picture = await divideLight(picture, box, kept, chosen.amount, others, context);
    }
    if (chosen.liftDarks > 0 || chosen.holdLights > 0) {
      picture = await levelTone(picture, middle, chosen.liftDarks, chosen.holdLights, context.checkpoint);
    }
    return { picture: leftAlone(input.picture, picture, mask), left: mask };
  },
  async verdict(output, input, chosen, { twoToned, side }, frame, { checkpoint }) {
    const before = await runSteps(cropDrift(input.picture, input, frame), checkpoint);
    const after = await runSteps(cropDrift(output.picture, input, frame), checkpoint);
    const fine = Math.max(FINE_DRIFT, after.chance);
    const state = after.rms <= fine ? 'fine' : after.rms <= fine + WRONG_BEYOND ? 'look' : 'wrong';
    const byChance = after.rms > FINE_DRIFT && state === 'fine';
    return {
      state,
      brief: `drift ${(100 * after.rms).toFixed(1)} %`,
      sentence: `Light drifted by ${(100 * before.rms).toFixed(1)} % over the crop; ${(100 * after.rms).toFixed(1)} % is left${byChance ? ', within what the surface itself explains' : ''}.`,
      advice: [
        twoToned
          ? 'The surface has two tones: only what changes within each is taken for light. Lower Amount if one of them fades.'
          : '',
        side && chosen.lightFrom === 'found' && side.plain < PLAIN
          ? 'No dominant side light found: set it by hand, or leave the shading.'
          : '',
        side && side.plain > GRAINY
          ? 'The surface has a grain of its own along this line: side shading takes that for light and flattens it. Lower it.'
          : '',
        state === 'fine'
          ? ''
          : chosen.amount < 1
            ? 'Raise the amount, or crop out the differently lit area.'
            : 'Try the local amount, or crop out the differently lit area.',
      ]
        .filter(Boolean)
        .join(' '),
      figures: [
        { id: 'before', label: 'Drift before', value: 100 * before.rms, unit: '%' },
        { id: 'after', label: 'Drift after', value: 100 * after.rms, unit: '%', limit: 100 * fine },
        ...(side
          ? [
              { id: 'sideLine', label: 'Side light along', value: side.degrees, unit: '°' },
              { id: 'sidePlain', label: 'Direction confidence', value: side.plain, unit: '' },
            ]
          : []),
      ],
    };
  },
});
