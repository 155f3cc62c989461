import { blurring } from '../../../filters/gaussian.ts';
import { takingLuminance } from '../../../planes/luminance.ts';
import { mapping } from '../../../planes/mapped.ts';
import { flag, number } from '../../../settings/kinds.ts';
import { statistics } from '../../../statistics/statistics.ts';
import { runSteps } from '../../../work/steps.ts';
import { sigmaOf } from '../../relief/scale.ts';
import { valueKind } from './kind.ts';

/** Deviations of the tone that come to the whole height. */
const FULL = 2;
const LEAST_SIGMA = 0.3;

const length = (label: string, help: string, value: number) =>
  number({ label, help, default: value, min: 0.1, max: 2000, step: 0.1, unit: 'mm' });

/** The colour below read as relief: what of its lightness lies between two widths, bright is high. */
export const tone = valueKind({
  title: 'From tone',
  channels: ['height'],
  settings: {
    reliefMm: number({
      label: 'Relief',
      help: 'How far bright places rise, and dark ones sink.',
      default: 1,
      min: 0,
      max: 200,
      step: 0.1,
      unit: 'mm',
    }),
    fineMm: length('Finest', 'Narrower detail of the colour is left out.', 0.5),
    coarseMm: length('Broadest', 'Broader changes of the colour are left out.', 60),
    isDarkHigh: flag({ label: 'Dark is high', help: 'Dark places rise instead.', default: false }),
  },
  reads: () => ['colour'],
  async value({ reliefMm, fineMm, coarseMm, isDarkHigh }, _channel, { below, frame, context }) {
    const { checkpoint } = context;
    const linear = await runSteps(takingLuminance(below.colour), checkpoint);
    // Lightness as the eye has it, so that dark joints count as much as bright faces.
    const lightness = await runSteps(
      mapping(linear, (y) => Math.cbrt(Math.max(0, y))),
      checkpoint,
    );
    const blurred = async (mm: number) => {
      const sigma = Math.min(frame.size / 6, sigmaOf(mm, frame));
      if (sigma <= LEAST_SIGMA) return lightness;
      return runSteps(blurring(lightness, frame.width, frame.height, sigma, frame.edges), checkpoint);
    };
    const [fine, broad] = [
      await blurred(Math.min(fineMm, coarseMm)),
      await blurred(Math.max(fineMm, coarseMm)),
    ];
    const band = await runSteps(
      mapping(fine, (value, i) => value - broad[i]),
      checkpoint,
    );
    const { deviation } = statistics(band);
    if (deviation < 1e-6) return { kind: 'single', of: 0 };
    const scale = ((isDarkHigh ? -1 : 1) * reliefMm) / (FULL * deviation);
    return {
      kind: 'single',
      of: await runSteps(
        mapping(band, (value) => value * scale),
        checkpoint,
      ),
    };
  },
});
