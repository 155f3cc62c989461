import { KERNELS } from '../../../kernels/kernels.ts';
import { nearColour } from '../../../masks/cover.ts';
import { madeInParts } from '../../../planes/made-in-parts.ts';
import { colour as colourSetting, number } from '../../../settings/kinds.ts';
import { runSteps } from '../../../work/steps.ts';
import { partKind } from './part.ts';

/** What is near a colour of the layers below, by the distance in OKLab (Ottosson 2020). */
export const colour = partKind({
  title: 'Colour',
  settings: {
    colour: colourSetting({
      label: 'Colour',
      help: 'The colour that is selected, sRGB.',
      default: '#808080',
    }),
    reach: number({
      label: 'Reach',
      help: 'How far a colour may be from it, in OKLab, and still be half selected.',
      default: 0.08,
      min: 0.002,
      max: 1,
      step: 0.002,
      unit: '',
    }),
    fade: number({
      label: 'Fade',
      help: 'Over which share of the reach it fades out.',
      default: 0.4,
      min: 0,
      max: 1,
      step: 0.05,
      unit: '',
    }),
  },
  reads: () => ['colour'],
  async values({ colour: of, reach, fade }, { below, context }) {
    const lab = KERNELS.oklabPlanes(below.colour.planes);
    const near = (from: number, to: number) =>
      nearColour(
        lab.map((plane) => plane.subarray(from, to)),
        { colour: of, reach, softness: fade },
      );
    return runSteps(madeInParts(lab[0].length, near), context.checkpoint);
  },
});
