import { blurring } from '../../filters/gaussian.ts';
import { summing } from '../../planes/summing.ts';
import type { Raster } from '../../raster/raster.ts';
import { repeated } from '../../sampling/repeat.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import { turnedNormals } from '../../tile/given.ts';
import type { Checkpoint } from '../../work/checkpoint.ts';
import { runSteps } from '../../work/steps.ts';
import { weightedSum } from './bands.ts';
import type { ReliefDecision, ReliefInput } from './decision.ts';
import { normalsOf, reoriented } from './detail-normal.ts';
import type { RawHeight } from './height.ts';
import { normalsByTeam } from './normals-band.ts';
import { sigmaOf } from './scale.ts';
import type { ReliefSettings } from './settings.ts';

const LEAST_SIGMA = 0.3;
/** The detail normal of the tile's own: so many of the finest bands. */
const OWN_BANDS = 2;

const fineWeights = ({ fine1, fine2, fine3 }: ReliefSettings) => [fine1, fine2, fine3];

/** Whether the normal map asks for bands of tone of its own. */
export const readsBands = (chosen: ReliefSettings): boolean =>
  chosen.detailFrom === 'bands' || fineWeights(chosen).some((weight) => weight !== 0);

/** Settings that the normal depends on, apart from the height. */
export const normalKey = (chosen: ReliefSettings) => [
  chosen.depthMm,
  chosen.normalStrength,
  chosen.kernel,
  chosen.normalY,
  chosen.normalSoftMm,
  fineWeights(chosen),
  chosen.detailFrom === 'none'
    ? null
    : [
        chosen.detailFrom,
        chosen.detailMap?.sha256,
        chosen.detailGreen,
        chosen.detailCount,
        chosen.detailStrength,
      ],
];

/** Bands of tone with weights, as heights 0..1 of the tile's own scale. */
async function bandHeight(
  raw: RawHeight,
  weights: number[],
  { polarity }: ReliefSettings,
  { heightSpread, spreads }: ReliefDecision,
  checkpoint: Checkpoint,
): Promise<Float32Array> {
  const bands = await raw.bands();
  const scale = spreads.tone > 0 ? heightSpread / spreads.tone : 0;
  const gain = polarity === 'dark' ? -scale : scale;
  const gains = weights.map((weight) => gain * weight);
  return runSteps(weightedSum(bands.slice(0, weights.length), gains), checkpoint);
}

/** The normals of the tile: of its height (0…1 of a depth) with fine detail of their own, or as given; with a detail normal combined with it. */
export async function normals(
  { style }: ReliefInput,
  relief: Float32Array,
  depthMm: number,
  raw: RawHeight,
  chosen: ReliefSettings,
  decided: ReliefDecision,
  frame: Frame,
  context: WorkContext,
): Promise<Raster> {
  const depthShare = depthMm / 1000 / frame.edgeMetres;
  const { kernel, normalY } = chosen;
  const { width, height, edges } = frame;
  const ofHeight = (field: Float32Array, strength: number) =>
    normalsByTeam(field, null, { width, height, edges, depthShare, strength, kernel, normalY }, context);
  const soft = async (field: Float32Array) => {
    const sigma = sigmaOf(chosen.normalSoftMm, frame);
    if (sigma <= LEAST_SIGMA) return field;
    return runSteps(blurring(field, frame.width, frame.height, sigma, frame.edges), context.checkpoint);
  };
  const { normal: given } = style.given;
  let base: Raster;
  // Supplied normals tell of the photo's relief, not of a painted or carved one.
  if (given && !style.relief && chosen.joints === 'none')
    base = turnedNormals(given, frame.turnDegrees + style.turnDegrees, chosen.normalY === 'up');
  else {
    const weights = fineWeights(chosen);
    let field = relief;
    if (weights.some((weight) => weight !== 0)) {
      const fine = await bandHeight(raw, weights, chosen, decided, context.checkpoint);
      field = await runSteps(summing([relief, fine], [1, 1], {}, fine), context.checkpoint);
    }
    base = await ofHeight(await soft(field), chosen.normalStrength);
  }
  if (chosen.detailFrom === 'none' || chosen.detailStrength === 0) return base;
  const lay = { count: chosen.detailCount, quarters: 0 };
  if (chosen.detailFrom === 'bands') {
    const own = await bandHeight(raw, Array(OWN_BANDS).fill(1), chosen, decided, context.checkpoint);
    return reoriented(base, repeated(await ofHeight(own, 1), frame, lay), chosen.detailStrength);
  }
  const { detailMap } = chosen;
  // Chosen, but no map given yet.
  if (!detailMap) return base;
  const codes = await context.picture(detailMap, Math.ceil(frame.size / chosen.detailCount), 3);
  const detail = normalsOf(codes, chosen.detailGreen !== chosen.normalY);
  return reoriented(base, repeated(detail, frame, lay), chosen.detailStrength);
}
