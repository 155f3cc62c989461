import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { luminance } from '../../planes/luminance.ts';
import { summing } from '../../planes/summing.ts';
import { percentiles, statistics } from '../../statistics/statistics.ts';
import { PLAIN_CONTEXT, type WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import type { HeightReading } from '../../tile/height-reading.ts';
import { runSteps } from '../../work/steps.ts';
import { join } from '../join/station.ts';
import { station } from '../station.ts';
import { style } from '../style/station.ts';
import { type CavityStrength, cavityMap, localRelief } from './cavity.ts';
import { decisionSchema, isLit, type ReliefDecision, type ReliefInput, reliefDepth } from './decision.ts';
import { polarityEvidence } from './evidence.ts';
import { type HeightShape, partsOf, type RawHeight, shapedHeight, spreadsOf } from './height.ts';
import { inMillimetres, millimetresKey, type Shaping } from './in-mm.ts';
import { jointCover, jointsOf, netKey } from './joints/shaped.ts';
import { normalKey, normals, readsBands } from './normals.ts';
import { occlusionMap } from './occlusion-map.ts';
import type { ReliefOutput } from './output.ts';
import { FLAT, inRangeMm, paintKey, rawHeight, scaled, shapeOf, weightsOf, withKey } from './raw-height.ts';
import { cavitySigma } from './scale.ts';
import { type ReliefSettings, settings } from './settings.ts';
import { fromAbove, lightInTile, slantHeight } from './slant.ts';
import { verdict } from './verdict.ts';
import { views } from './views.ts';
import { usedZones, zonesKey } from './zones/readings.ts';

/** How height is read, for stations that need one before this. */
const readingOf = (chosen: ReliefSettings): HeightReading => ({
  from: chosen.heightFrom === 'both' ? 'tone' : chosen.heightFrom,
  isDarkHigh: chosen.polarity === 'dark',
  grey: chosen.grey,
  greyColour: chosen.greyColour,
  weights: weightsOf(chosen),
  lightDegrees: chosen.lightFrom === 'hand' ? chosen.lightDegrees : null,
});

/** Everything the height depends on, but for its depth. */
const shapeKey = (chosen: ReliefSettings) => [
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
  ...withKey(netKey(chosen)),
  ...withKey(paintKey(chosen)),
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

/** Settings that the cavity depends on, apart from the height. */
const cavityKey = ({ cavityMm, cavityStrength, cavityHollows, cavityEdges }: ReliefSettings) => [
  cavityMm,
  cavityStrength,
  cavityHollows,
  cavityEdges,
];

const cavityStrengths = ({ cavityStrength, cavityHollows, cavityEdges }: ReliefSettings): CavityStrength => ({
  hollows: cavityStrength * cavityHollows,
  edges: cavityStrength * cavityEdges,
});

/** What the height of the tile is made with, beside its settings. */
interface HeightMade extends Shaping {
  shape: HeightShape;
  decided: ReliefDecision;
}

/** The height of the tile, 0…1: of tone and other sources, with joints carved and painted ridges. */
async function reliefOf(
  of: RawHeight,
  made: HeightMade,
  chosen: ReliefSettings,
  frame: Frame,
  context: WorkContext,
): Promise<Float32Array> {
  const { shape, decided, style } = made;
  const sum = await shapedHeight(of, shape, decided.spreads, frame, frame.edges, context.checkpoint);
  let height = await runSteps(scaled(sum, decided), context.checkpoint);
  if (millimetresKey(chosen, frame) !== null) {
    const mm = await inMillimetres(height, made, chosen, frame, context);
    ({ height } = await inRangeMm(mm, decided.rangeMm ?? null, context));
  }
  if (!style.relief) return height;
  const range = { low: 0, high: 1 };
  return runSteps(summing([height, style.relief.ridges], [1, 1], range, height), context.checkpoint);
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
  usedMasks: usedZones,
  cacheKey: (chosen, masks) => [chosen, zonesKey(chosen, masks)],
  frameFacts: ({ edgeMetres }) => edgeMetres,
  views,
  shows: 'height',
  weight: 36,
  of: 'tile',
  measuredLast: true,
  decision: decisionSchema,
  decidesOn: (chosen, frame) => [
    shapeKey(chosen),
    chosen.cavityMm,
    frame.edgeMetres,
    readsBands(chosen),
    ...withKey(millimetresKey(chosen, frame)),
  ],
  async decide(input: ReliefInput, chosen, frame, context): Promise<ReliefDecision> {
    const { light, evidence } = await readLight(input, frame, context);
    const joints = await jointsOf(input.style.picture, chosen, frame, context);
    const cover = joints && (await jointCover(joints, chosen, frame, context));
    const raw = rawHeight(input, chosen, light, cover, frame, context);
    const shape = shapeOf(chosen, frame, raw.given !== null);
    const spreads = await spreadsOf(raw, shape, context.checkpoint, readsBands(chosen));
    const sum = await shapedHeight(raw, shape, spreads, frame, frame.edges, context.checkpoint);
    // Heights of normals and given ones are true, to their ends; of others a few far ones do not count.
    const read = partsOf(raw, shape);
    const isTrue = read.length === 1 && (read[0].from === 'normals' || read[0].from === 'given');
    const isWhole = isTrue && read[0].from === 'given' && chosen.flatten === 0;
    const [low, high] = isWhole ? [0, 1] : percentiles(sum, isTrue ? [0, 100] : [0.1, 99.9]);
    const tone = await runSteps(scaled(sum, { low, high }), context.checkpoint);
    const toneSpread = statistics(tone).deviation;
    const isInMillimetres = millimetresKey(chosen, frame) !== null;
    const { height, rangeMm } = isInMillimetres
      ? await inRangeMm(
          await inMillimetres(tone, { joints, cover, style: input.style }, chosen, frame, context),
          null,
          context,
        )
      : { height: tone };
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
      heightSpread: rangeMm
        ? (toneSpread * (joints ? chosen.faceTone : 1) * chosen.depthMm) /
          Math.max(FLAT, rangeMm[1] - rangeMm[0])
        : toneSpread,
      spreads,
      light,
      evidence,
      ...(rangeMm ? { rangeMm } : {}),
    };
  },
  async run(input, chosen, decided, frame, context): Promise<ReliefOutput> {
    const { low, high, cavitySpread, spreads, light } = decided;
    const depthMm = reliefDepth(chosen, decided);
    const { given, relief: painted } = input.style;
    // Supplied maps tell of the photo's relief, not of a carved one.
    const suppliedCavity = painted ? null : (given.cavity?.planes[0] ?? null);
    const suppliedOcclusion = painted ? null : (given.occlusion?.planes[0] ?? null);
    const joints = await jointsOf(input.style.picture, chosen, frame, context);
    const cover = joints && (await jointCover(joints, chosen, frame, context));
    const raw = rawHeight(input, chosen, light, cover, frame, context);
    const shape = shapeOf(chosen, frame, raw.given !== null);
    const made = { shape, decided, joints, cover, style: input.style };
    const shaped = (of: RawHeight) => reliefOf(of, made, chosen, frame, context);
    const height = await context.part(
      'height',
      [
        shapeKey(chosen),
        low,
        high,
        spreads,
        light,
        chosen.softMm > 0 || decided.rangeMm ? frame.edgeMetres : null,
        ...withKey(millimetresKey(chosen, frame)),
      ],
      () => shaped(raw),
    );
    /** What shades the occlusion map: the height, or that of other bands. */
    // Its parts are not kept: they would take the place of the height's own.
    const shading = async () => {
      if (!painted?.ofOcclusion) return height;
      const relief = { ...painted, height: painted.ofOcclusion };
      const other = { style: { ...input.style, relief } };
      return shaped(
        rawHeight(other, chosen, light, cover, frame, { ...PLAIN_CONTEXT, checkpoint: context.checkpoint }),
      );
    };
    await context.checkpoint(0.2);
    const heightKey = [
      shapeKey(chosen),
      low,
      high,
      spreads,
      light,
      frame.edgeMetres,
      ...withKey(millimetresKey(chosen, frame)),
    ];
    const normal = await context.part('normal', [heightKey, normalKey(chosen)], () =>
      normals(input, height, depthMm, raw, chosen, decided, frame, context),
    );
    await context.checkpoint(0.3);
    const cavity = await context.part(
      'cavity',
      [heightKey, ...cavityKey(chosen), cavitySpread],
      () =>
        suppliedCavity ??
        cavityMap(height, frame, cavitySigma(chosen, frame), cavitySpread, cavityStrengths(chosen), context),
    );
    await context.checkpoint(0.4);
    const occlusion = !input.omit?.includes('occlusion')
      ? await context.part(
          'occlusion',
          [heightKey, chosen.depthMm, chosen.occlusionMm, chosen.occlusionStrength, chosen.occlusionBias],
          async () =>
            suppliedOcclusion ??
            occlusionMap(await shading(), { ...chosen, depthMm }, frame, context.checkpoint, context.team),
        )
      : null;
    const shaping = {
      chosen,
      cavitySpread,
      isCavityGiven: suppliedCavity !== null,
      isOcclusionGiven: suppliedOcclusion !== null,
    };
    const faceCount = joints?.count ?? null;
    return {
      height,
      depthMm,
      normal,
      occlusion,
      cavity,
      joints: cover,
      faceCount,
      tone: raw.tone,
      bands: raw.bands,
      shaping,
    };
  },
  verdict,
});
