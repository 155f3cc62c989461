import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { luminance } from '../../planes/luminance.ts';
import { summing } from '../../planes/summing.ts';
import { percentiles, statistics } from '../../statistics/statistics.ts';
import { PLAIN_CONTEXT, type WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import { turnedNormals } from '../../tile/given.ts';
import type { HeightReading } from '../../tile/height-reading.ts';
import { runSteps, type Steps } from '../../work/steps.ts';
import { join } from '../join/station.ts';
import { station } from '../station.ts';
import { style } from '../style/station.ts';
import { bandSum } from './band-sum.ts';
import { BAND_COUNT, detailBands, logOf } from './bands.ts';
import { cavityMap, localRelief } from './cavity.ts';
import { decisionSchema, isLit, lightOf, type ReliefDecision, type ReliefInput } from './decision.ts';
import { polarityEvidence } from './evidence.ts';
import { greyOf } from './grey.ts';
import {
  type HeightShape,
  type HeightSource,
  LIGHT_SHARE,
  partsOf,
  type RawHeight,
  shapedHeight,
  spreadsOf,
} from './height.ts';
import { heightOfNormals } from './integrate.ts';
import { normalKey, normals, readsBands } from './normals.ts';
import { occlusionMap } from './occlusion-map.ts';
import type { ReliefOutput } from './output.ts';
import { cavitySigma, sigmaOf } from './scale.ts';
import { type ReliefSettings, settings } from './settings.ts';
import { fromAbove, lightInTile, slantHeight } from './slant.ts';
import { verdict } from './verdict.ts';
import { views } from './views.ts';

type Chosen = ReliefSettings;

const weightsOf = (s: Chosen) => [s.band1, s.band2, s.band3, s.band4, s.band5, s.band6].slice(0, BAND_COUNT);

/** How height is read, for stations that need one before this. */
const readingOf = (chosen: Chosen): HeightReading => ({
  from: chosen.heightFrom === 'both' ? 'tone' : chosen.heightFrom,
  isDarkHigh: chosen.polarity === 'dark',
  grey: chosen.grey,
  greyColour: chosen.greyColour,
  weights: weightsOf(chosen),
  lightDegrees: chosen.lightFrom === 'hand' ? chosen.lightDegrees : null,
});

const FLAT = 1e-5;
/** Above this size, which no dial is moved at, bands of tone are not held together. */
const HELD_SIZE = 2048;

/** Everything the height depends on, but for its depth. */
const shapeKey = (chosen: Chosen) => [
  weightsOf(chosen),
  chosen.polarity,
  chosen.heightFrom,
  chosen.secondFrom === 'none' ? null : [chosen.secondFrom, chosen.secondShare],
  chosen.grey,
  chosen.grey === 'nearness' ? chosen.greyColour : null,
  isLit(chosen) ? [chosen.lightFrom, chosen.lightDegrees] : null,
  chosen.flatten,
  chosen.softMm,
  chosen.noiseFloor,
];

/** Where slanting light comes from and what speaks for bright or dark, by the tile as it left Style. */
async function readLight(
  { style }: ReliefInput,
  frame: Frame,
  context: WorkContext,
): Promise<Pick<ReliefDecision, 'light' | 'evidence'>> {
  return context.part('light', frame.edges, async () => {
    // Painted light is no evidence of relief.
    const y = luminance(style.photo);
    const log = KERNELS.logPlane(y, 0.01);
    await context.checkpoint(0);
    const { degrees: line, plain } = await runSteps(lightInTile(log, frame), context.checkpoint);
    const degrees = fromAbove(line);
    await context.checkpoint(0);
    const slant = await runSteps(slantHeight(y, frame, degrees), context.checkpoint);
    await context.checkpoint(0);
    const evidence = await runSteps(
      polarityEvidence(log, slant, plain, frame, frame.edges),
      context.checkpoint,
    );
    PLANES.give(y, log, slant);
    await context.checkpoint(0);
    return { light: { degrees, plain }, evidence };
  });
}

function rawHeight(
  { style }: ReliefInput,
  chosen: Chosen,
  light: ReliefDecision['light'],
  frame: Frame,
  context: WorkContext,
): RawHeight {
  const near = chosen.grey === 'nearness' ? chosen.greyColour : '';
  const degrees = lightOf(chosen, light);
  const { normal } = style.given;
  const { relief: painted } = style;
  const grey = () => runSteps(greyOf(style.picture, chosen.grey, near), context.checkpoint);
  const log = async () =>
    painted?.from === 'tone' ? painted.height.slice() : runSteps(logOf(await grey()), context.checkpoint);
  /** What Style made of a source, where it did. */
  const repainted = (from: HeightSource) => (painted?.from === from ? async () => painted.height : null);
  const bands = () =>
    context.part('bands', [frame.edges, chosen.grey, near], async () =>
      detailBands(await log(), frame, frame.edges, context.checkpoint),
    );
  return {
    bands,
    bandSum:
      frame.size > HELD_SIZE
        ? async (shares) => bandSum(await log(), frame, frame.edges, context.checkpoint, shares)
        : null,
    slant:
      repainted('light') ??
      (() =>
        context.part('slant', [frame.edges, chosen.grey, near, degrees], async () => {
          const before = await runSteps(greyOf(await style.before(), chosen.grey, near), context.checkpoint);
          return runSteps(slantHeight(before, frame, degrees), context.checkpoint);
        })),
    normals:
      repainted('normals') ??
      (normal
        ? () =>
            context.part('of normals', frame.edges, () =>
              runSteps(
                heightOfNormals(turnedNormals(normal, frame.turnDegrees + style.turnDegrees, true)),
                context.checkpoint,
              ),
            )
        : null),
    given: painted?.from === 'given' ? painted.height : (style.given.height?.planes[0] ?? null),
  };
}

/** From what height is read, and how much of each. A given height stands before all that could be derived. */
function heightParts(
  { heightFrom, secondFrom, secondShare }: Chosen,
  isGiven: boolean,
): HeightShape['parts'] {
  const first: HeightShape['parts'] = isGiven
    ? [{ from: 'given', share: 1 }]
    : heightFrom === 'both'
      ? [
          { from: 'tone', share: 1 - LIGHT_SHARE },
          { from: 'light', share: LIGHT_SHARE },
        ]
      : [{ from: heightFrom, share: 1 }];
  if (secondFrom === 'none') return first;
  const shares = new Map<HeightSource, number>();
  for (const { from, share } of first) shares.set(from, share * (1 - secondShare));
  shares.set(secondFrom, (shares.get(secondFrom) ?? 0) + secondShare);
  return [...shares].map(([from, share]) => ({ from, share }));
}

const shapeOf = (chosen: Chosen, frame: Frame, isGiven: boolean): HeightShape => ({
  parts: heightParts(chosen, isGiven),
  weights: weightsOf(chosen),
  isDarkHigh: chosen.polarity === 'dark',
  flatten: chosen.flatten,
  softSigma: sigmaOf(chosen.softMm, frame),
  noiseFloor: chosen.noiseFloor,
});

function* scaled(bands: Float32Array, { low, high }: { low: number; high: number }): Steps<Float32Array> {
  if (high - low < FLAT) return new Float32Array(bands.length).fill(0.5);
  const scale = 1 / (high - low);
  return yield* summing([bands], [scale], { base: -low * scale, low: 0, high: 1 });
}

/** Relief: height from the tile as it left Style, and what depends on it. */
export const relief = station({
  name: 'relief',
  line: 'Read the surface’s shape: height, normal, occlusion, cavity.',
  settings,
  reads: [style],
  pictures: ({ detailMap }) => ({ detail: detailMap }),
  optional: { occlusion: { ofPhoto: false } },
  demands: (chosen) => (isLit(chosen) ? [`${join.name}.before`] : []),
  setsFrame: (chosen) => ({ green: chosen.normalY === 'up' ? 1 : -1, reading: readingOf(chosen) }),
  frameFacts: ({ edgeMetres }) => edgeMetres,
  views,
  shows: 'height',
  weight: 36,
  of: 'tile',
  measuredLast: true,
  decision: decisionSchema,
  decidesOn: (chosen, frame) => [shapeKey(chosen), chosen.cavityMm, frame.edgeMetres, readsBands(chosen)],
  async decide(input: ReliefInput, chosen, frame, context): Promise<ReliefDecision> {
    const { light, evidence } = await readLight(input, frame, context);
    const raw = rawHeight(input, chosen, light, frame, context);
    const shape = shapeOf(chosen, frame, raw.given !== null);
    const spreads = await spreadsOf(raw, shape, context.checkpoint, readsBands(chosen));
    const sum = await shapedHeight(raw, shape, spreads, frame, frame.edges, context.checkpoint);
    // Heights of normals and given ones are true, to their ends; of others a few far ones do not count.
    const read = partsOf(raw, shape);
    const isTrue = read.length === 1 && (read[0].from === 'normals' || read[0].from === 'given');
    const isWhole = isTrue && read[0].from === 'given' && chosen.flatten === 0;
    const [low, high] = isWhole ? [0, 1] : percentiles(sum, isTrue ? [0, 100] : [0.1, 99.9]);
    const height = await runSteps(scaled(sum, { low, high }), context.checkpoint);
    await context.checkpoint(0);
    const local = await runSteps(
      localRelief(height, frame, cavitySigma(chosen, frame), frame.edges),
      context.checkpoint,
    );
    const { deviation } = statistics(local);
    return {
      low,
      high,
      cavitySpread: deviation < FLAT ? 0 : deviation,
      heightSpread: statistics(height).deviation,
      spreads,
      light,
      evidence,
    };
  },
  async run(input, chosen, decided, frame, context): Promise<ReliefOutput> {
    const { low, high, cavitySpread, spreads, light } = decided;
    const { given, relief: painted } = input.style;
    // Supplied maps tell of the photo's relief, not of a carved one.
    const suppliedCavity = painted ? null : (given.cavity?.planes[0] ?? null);
    const suppliedOcclusion = painted ? null : (given.occlusion?.planes[0] ?? null);
    const raw = rawHeight(input, chosen, light, frame, context);
    const shape = shapeOf(chosen, frame, raw.given !== null);
    const shaped = async (of: RawHeight) => {
      const sum = await shapedHeight(of, shape, spreads, frame, frame.edges, context.checkpoint);
      const height = await runSteps(scaled(sum, decided), context.checkpoint);
      if (!painted) return height;
      const range = { low: 0, high: 1 };
      return runSteps(summing([height, painted.ridges], [1, 1], range, height), context.checkpoint);
    };
    const height = await context.part(
      'height',
      [shapeKey(chosen), low, high, spreads, light, chosen.softMm > 0 ? frame.edgeMetres : null],
      () => shaped(raw),
    );
    /** What shades the occlusion map: the height, or that of other bands. */
    // Its parts are not kept: they would take the place of the height's own.
    const shading = async () => {
      if (!painted?.ofOcclusion) return height;
      const relief = { ...painted, height: painted.ofOcclusion };
      const other = { style: { ...input.style, relief } };
      return shaped(
        rawHeight(other, chosen, light, frame, { ...PLAIN_CONTEXT, checkpoint: context.checkpoint }),
      );
    };
    await context.checkpoint(0.2);
    const heightKey = [shapeKey(chosen), low, high, spreads, light, frame.edgeMetres];
    const normal = await context.part('normal', [heightKey, normalKey(chosen)], () =>
      normals(input, height, raw, chosen, decided, frame, context),
    );
    await context.checkpoint(0.3);
    const cavity = await context.part(
      'cavity',
      [
        heightKey,
        chosen.cavityMm,
        chosen.cavityStrength,
        chosen.cavityHollows,
        chosen.cavityEdges,
        cavitySpread,
      ],
      () =>
        suppliedCavity ??
        cavityMap(
          height,
          frame,
          cavitySigma(chosen, frame),
          cavitySpread,
          {
            hollows: chosen.cavityStrength * chosen.cavityHollows,
            edges: chosen.cavityStrength * chosen.cavityEdges,
          },
          context,
        ),
    );
    await context.checkpoint(0.4);
    const occlusion = !input.omit?.includes('occlusion')
      ? await context.part(
          'occlusion',
          [heightKey, chosen.depthMm, chosen.occlusionMm, chosen.occlusionStrength, chosen.occlusionBias],
          async () =>
            suppliedOcclusion ??
            occlusionMap(await shading(), chosen, frame, context.checkpoint, context.team),
        )
      : null;
    const shaping = {
      chosen,
      cavitySpread,
      isCavityGiven: suppliedCavity !== null,
      isOcclusionGiven: suppliedOcclusion !== null,
    };
    return { height, depthMm: chosen.depthMm, normal, occlusion, cavity, bands: raw.bands, shaping };
  },
  verdict,
});
