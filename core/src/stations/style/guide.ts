import { blurring } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { copyOf } from '../../memory/copy.ts';
import { PLANES } from '../../memory/pool.ts';
import { luminance } from '../../planes/luminance.ts';
import { summing } from '../../planes/summing.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import { turnedNormals } from '../../tile/given.ts';
import { runSteps } from '../../work/steps.ts';
import type { JoinOutput } from '../join/output.ts';
import { bandSum } from '../relief/band-sum.ts';
import { detailBands, logOf } from '../relief/bands.ts';
import { greyOf } from '../relief/grey.ts';
import { heightOfNormals } from '../relief/integrate.ts';
import { fromAbove, lightInTile, slantHeight } from '../relief/slant.ts';
import type { PaintedRelief } from './output.ts';
import type { BandChoice } from './settings.ts';

type Context = Pick<WorkContext, 'checkpoint'>;

/** What height is read from, as Relief reads it: a supplied height before all, supplied normals and light where they are asked for. */
export function guideFrom({ given }: JoinOutput, { reading }: Frame): PaintedRelief['from'] {
  if (given.height) return 'given';
  if (reading.from === 'normals') return given.normal ? 'normals' : 'tone';
  return reading.from;
}

/** Where slanting light comes from: as set by hand, or found in the tile. Null where it is not read. */
export async function slantDegrees(
  join: JoinOutput,
  frame: Frame,
  { checkpoint }: Context,
): Promise<number | null> {
  if (guideFrom(join, frame) !== 'light') return null;
  if (frame.reading.lightDegrees !== null) return frame.reading.lightDegrees;
  const log = KERNELS.logPlane(luminance(join.picture), 0.01);
  return fromAbove((await runSteps(lightInTile(log, frame), checkpoint)).degrees);
}

/** The height that is simplified together with the picture: log grey for tone, otherwise a height of any scale. A new plane. */
export async function guideHeight(
  join: JoinOutput,
  degrees: number | null,
  frame: Frame,
  { checkpoint }: Context,
): Promise<Float32Array> {
  const { grey, greyColour } = frame.reading;
  const near = grey === 'nearness' ? greyColour : '';
  switch (guideFrom(join, frame)) {
    case 'given':
      return join.given.height!.planes[0].slice();
    case 'normals': {
      const turned = turnedNormals(join.given.normal!, frame.turnDegrees + join.turnDegrees, true);
      return runSteps(heightOfNormals(turned), checkpoint);
    }
    case 'light': {
      const before = await runSteps(greyOf(await join.before(), grey, near), checkpoint);
      return runSteps(slantHeight(before, frame, degrees!), checkpoint);
    }
    case 'tone':
      return runSteps(logOf(await runSteps(greyOf(join.picture, grey, near), checkpoint)), checkpoint);
  }
}

/** A guide as a height of any scale whose high parts stand out: tone by Relief's weights of bands. */
export async function standing(
  guide: Float32Array,
  from: PaintedRelief['from'],
  frame: Frame,
  { checkpoint }: Context,
): Promise<Float32Array> {
  if (from !== 'tone') return guide;
  const { weights, isDarkHigh } = frame.reading;
  const shares = weights.map((weight) => ({
    weight: isDarkHigh ? -weight : weight,
    clean: (band: Float32Array) => band,
  }));
  return bandSum(copyOf(guide), frame, frame.edges, checkpoint, shares);
}

const SOFT = 0.002;
const REST = 0.25;

/** A simplified height as it is carved: three quarters of what is finer than 0.2 % of the edge are taken away. */
export async function carved(
  height: Float32Array,
  frame: Frame,
  { checkpoint }: Context,
): Promise<Float32Array> {
  const sigma = SOFT * Math.min(frame.width, frame.height);
  const soft = await runSteps(blurring(height, frame.width, frame.height, sigma, frame.edges), checkpoint);
  return runSteps(summing([soft, height], [1 - REST, REST], {}, soft), checkpoint);
}

/** A height of the chosen bands alone; what is broader than all bands stays. The same plane where all are chosen. */
export async function ofBands(
  height: Float32Array,
  chosen: BandChoice,
  frame: Frame,
  { checkpoint }: Context,
): Promise<Float32Array> {
  if (chosen.every(Boolean)) return height;
  const bands = await detailBands(height.slice(), frame, frame.edges, checkpoint);
  const left = chosen.map((isUsed) => (isUsed ? 0 : -1));
  const out = await runSteps(summing([height, ...bands], [1, ...left]), checkpoint);
  PLANES.give(...bands);
  return out;
}
