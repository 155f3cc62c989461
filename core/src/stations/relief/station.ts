import * as v from 'valibot';
import { luminance } from '../../colour/luminance.ts';
import type { WorkContext } from '../../engine/context.ts';
import { histogramPercentiles } from '../../raster/histogram.ts';
import { percentiles, statistics } from '../../raster/statistics.ts';
import { turnedNormals } from '../given.ts';
import { type Frame, type JoinOutput, type ReliefOutput, station } from '../types.ts';
import { BAND_COUNT, detailBands } from './bands.ts';
import { cavityMap, localRelief } from './cavity.ts';
import { GRAINY, polarityEvidence } from './evidence.ts';
import { greyOf } from './grey.ts';
import { type HeightShape, type RawHeight, shapedHeight, spreadsOf, spreadsSchema } from './height.ts';
import { heightOfNormals } from './integrate.ts';
import { normalMap } from './normal.ts';
import { occlusionMap } from './occlusion-map.ts';
import { type ReliefSettings, settings } from './settings.ts';
import { fromAbove, lightInTile, slantHeight } from './slant.ts';

type Chosen = ReliefSettings;

/** What Relief reads: the tile as it left Join, and whether occlusion is wanted now. */
export interface ReliefInput {
  join: JoinOutput;
  withOcclusion: boolean;
}

const decisionSchema = v.strictObject({
  /** What becomes 0 and 1. */
  low: v.number(),
  high: v.number(),
  /** Deviation of local relief. */
  cavitySpread: v.number(),
  spreads: spreadsSchema,
  /** Where slanting light comes from, clockwise from the top, and how plainly it does. */
  light: v.strictObject({ degrees: v.number(), plain: v.number() }),
  /** For bright (above 0) or dark (below) standing out. */
  evidence: v.strictObject({ shading: v.number(), joints: v.number(), together: v.number() }),
});

/** What is settled at the working size. */
export type ReliefDecision = v.InferOutput<typeof decisionSchema>;

const weightsOf = (s: Chosen) => [s.band1, s.band2, s.band3, s.band4, s.band5, s.band6].slice(0, BAND_COUNT);

const cavitySigma = (chosen: Chosen, frame: Frame) =>
  Math.min(frame.size / 8, Math.max(0.6, (chosen.cavityMm / 1000 / frame.edgeMetres / 2.83) * frame.size));

const FLAT = 1e-5;

/** Everything the height hangs on, but for its depth. */
const shapeKey = (chosen: Chosen) => [
  weightsOf(chosen),
  chosen.polarity,
  chosen.heightFrom,
  chosen.grey,
  chosen.grey === 'nearness' ? chosen.greyColour : null,
  isLit(chosen) ? [chosen.lightFrom, chosen.lightDegrees] : null,
  chosen.flatten,
  chosen.softMm,
  chosen.noiseFloor,
];

/** Whether slanting light is read at all. */
const isLit = ({ heightFrom }: Chosen) => heightFrom === 'light' || heightFrom === 'both';

const lightOf = (chosen: Chosen, found: ReliefDecision['light']): number =>
  chosen.lightFrom === 'hand' ? chosen.lightDegrees : found.degrees;

/** Where slanting light comes from and what speaks for bright or dark, by the tile as it left Join. */
async function readLight(
  { join }: ReliefInput,
  frame: Frame,
  context: WorkContext,
): Promise<Pick<ReliefDecision, 'light' | 'evidence'>> {
  return context.part('light', frame.edges, () => {
    const y = luminance(join.picture);
    const log = y.map((value) => Math.log(value + 0.01));
    const { degrees: line, plain } = lightInTile(log, frame);
    const degrees = fromAbove(line);
    const slant = slantHeight(y, frame, degrees);
    return { light: { degrees, plain }, evidence: polarityEvidence(log, slant, plain, frame, frame.edges) };
  });
}

function rawHeight(
  { join }: ReliefInput,
  chosen: Chosen,
  light: ReliefDecision['light'],
  frame: Frame,
  context: WorkContext,
): RawHeight {
  const near = chosen.grey === 'nearness' ? chosen.greyColour : '';
  const degrees = lightOf(chosen, light);
  const { normal } = join.given;
  return {
    bands: () =>
      context.part('bands', [frame.edges, chosen.grey, near], () =>
        detailBands(greyOf(join.picture, chosen.grey, near), frame, frame.edges, context.breathe),
      ),
    slant: () =>
      context.part('slant', [frame.edges, chosen.grey, near, degrees], async () =>
        slantHeight(greyOf(await join.before(), chosen.grey, near), frame, degrees),
      ),
    normals: normal
      ? () =>
          context.part('of normals', frame.edges, () =>
            heightOfNormals(turnedNormals(normal, frame.turnDegrees + join.turnDegrees, true)),
          )
      : null,
  };
}

const shapeOf = (chosen: Chosen, frame: Frame): HeightShape => ({
  from: chosen.heightFrom,
  weights: weightsOf(chosen),
  isDarkHigh: chosen.polarity === 'dark',
  flatten: chosen.flatten,
  softSigma: (chosen.softMm / 1000 / frame.edgeMetres / 2.83) * frame.size,
  noiseFloor: chosen.noiseFloor,
});

function scaled(bands: Float32Array, { low, high }: { low: number; high: number }): Float32Array {
  if (high - low < FLAT) return new Float32Array(bands.length).fill(0.5);
  const scale = 1 / (high - low);
  return bands.map((v) => Math.min(1, Math.max(0, (v - low) * scale)));
}

const STEEP_DEGREES = 60;
/** From here on the evidence is said to be against the dial. */
const STRONG = 0.5;
/** A depth that differs by more of it disagrees with the given normals. */
const DEPTH_SLACK = 0.05;
/** Below this no slanting light rules. */
const PLAIN = 0.06;

/** Relief: height from the tile as it left Join, and what hangs on it. */
export const relief = station({
  name: 'relief',
  line: 'Read the surface’s shape: height, normal, occlusion, cavity.',
  settings,
  decision: decisionSchema,
  decidesOn: (chosen, frame) => [shapeKey(chosen), chosen.cavityMm, frame.edgeMetres],
  async decide(input: ReliefInput, chosen, frame, context): Promise<ReliefDecision> {
    const { light, evidence } = await readLight(input, frame, context);
    const raw = rawHeight(input, chosen, light, frame, context);
    const shape = shapeOf(chosen, frame);
    const spreads = await spreadsOf(raw, shape);
    const sum = await shapedHeight(raw, shape, spreads, frame, frame.edges);
    // Heights of normals are true ones, to their ends; of others a few far ones do not count.
    const isTrue = chosen.heightFrom === 'normals' && raw.normals !== null;
    const [low, high] = percentiles(sum, isTrue ? [0, 100] : [0.1, 99.9]);
    const height = input.join.given.height?.planes[0] ?? scaled(sum, { low, high });
    const local = localRelief(height, frame, cavitySigma(chosen, frame), frame.edges);
    const { deviation } = statistics(local);
    return { low, high, cavitySpread: deviation < FLAT ? 0 : deviation, spreads, light, evidence };
  },
  async run(input, chosen, decided, frame, context): Promise<ReliefOutput> {
    const { low, high, cavitySpread, spreads, light } = decided;
    const { given } = input.join;
    const height = await context.part(
      'height',
      [shapeKey(chosen), low, high, spreads, light, chosen.softMm > 0 ? frame.edgeMetres : null],
      async () => {
        if (given.height) return given.height.planes[0];
        const raw = rawHeight(input, chosen, light, frame, context);
        return scaled(await shapedHeight(raw, shapeOf(chosen, frame), spreads, frame, frame.edges), decided);
      },
    );
    const heightKey = [shapeKey(chosen), low, high, spreads, light, frame.edgeMetres];
    const depthShare = chosen.depthMm / 1000 / frame.edgeMetres;
    const normal = await context.part(
      'normal',
      [heightKey, chosen.depthMm, chosen.normalStrength, chosen.kernel, chosen.normalY],
      () =>
        given.normal
          ? turnedNormals(given.normal, frame.turnDegrees + input.join.turnDegrees, chosen.normalY === 'up')
          : normalMap(
              height,
              frame,
              depthShare,
              chosen.normalStrength,
              chosen.kernel,
              chosen.normalY,
              frame.edges,
            ),
    );
    const cavity = await context.part(
      'cavity',
      [heightKey, chosen.cavityMm, chosen.cavityStrength, cavitySpread],
      () =>
        given.cavity?.planes[0] ??
        cavityMap(
          height,
          frame,
          cavitySigma(chosen, frame),
          cavitySpread,
          chosen.cavityStrength,
          frame.edges,
        ),
    );
    const occlusion = input.withOcclusion
      ? await context.part(
          'occlusion',
          [heightKey, chosen.depthMm, chosen.occlusionMm, chosen.occlusionStrength],
          async () => given.occlusion?.planes[0] ?? occlusionMap(height, chosen, frame, context.breathe),
        )
      : null;
    return { height, normal, occlusion, cavity };
  },
  verdict(output, input, chosen, decided, frame) {
    const { evidence, light } = decided;
    const isGiven = input.join.given.height !== undefined;
    const [low, high] = histogramPercentiles(output.height, [0.5, 99.5]);
    const nz = output.normal.planes[2];
    const steepZ = Math.cos((STEEP_DEGREES * Math.PI) / 180);
    let steep = 0;
    let tiltX = 0;
    let tiltY = 0;
    let lowestZ = 1;
    const [nx, ny] = output.normal.planes;
    for (let i = 0; i < nz.length; i++) {
      if (nz[i] < steepZ) steep++;
      if (nz[i] < lowestZ) lowestZ = nz[i];
      tiltX += nx[i];
      tiltY += ny[i];
    }
    const steepShare = (100 * steep) / nz.length;
    const tilt = Math.hypot(tiltX, tiltY) / nz.length;
    const range = (high - low) * chosen.depthMm;
    const flat = !(high > low) || range === 0;
    const steepest = (Math.acos(lowestZ) * 180) / Math.PI;
    const isIntegrated = !isGiven && chosen.heightFrom === 'normals' && input.join.given.normal !== undefined;
    const readsTone = !isGiven && !isIntegrated && chosen.heightFrom !== 'light';
    const toldMm = isIntegrated ? (decided.high - decided.low) * frame.edgeMetres * 1000 : 0;
    const isOther = isIntegrated && Math.abs(toldMm - chosen.depthMm) > DEPTH_SLACK * toldMm;
    const against = (chosen.polarity === 'bright' ? -1 : 1) * evidence.together;
    const byFoundLight = !isGiven && isLit(chosen) && chosen.lightFrom === 'found';
    const isAgainst = readsTone && against > STRONG;
    const state = flat || steepShare > 2 || tilt > 0.02 || isAgainst || isOther ? 'look' : 'fine';
    return {
      state,
      brief: flat ? 'flat' : `${range.toFixed(range < 10 ? 1 : 0)} mm deep`,
      sentence: flat
        ? 'The picture holds no detail to read height from: the surface is flat.'
        : `Height spans ${range.toFixed(1)} mm, ${((100 * range) / 1000 / frame.edgeMetres).toFixed(2)} % of the edge; the steepest slope is ${steepest.toFixed(0)}°.`,
      advice: [
        flat
          ? 'Give it depth, or raise a band.'
          : steepShare > 2
            ? 'Lower the depth, or the weights of the fine bands: so much steepness is mostly noise.'
            : '',
        isAgainst
          ? `By thin lines and shading ${evidence.together > 0 ? 'bright' : 'dark'} parts stand out here: look at it lit with high turned round.`
          : '',
        isOther
          ? `The given normals are those of a surface ${toldMm.toFixed(1)} mm deep: set the depth to that, so that height and normals agree.`
          : '',
        byFoundLight && light.plain < PLAIN
          ? 'No slanting light rules in this photo: set where it comes from, or read height from tone.'
          : '',
        byFoundLight && light.plain > GRAINY
          ? 'The surface has a grain of its own that looks like light: set by hand where the light comes from.'
          : '',
      ]
        .filter(Boolean)
        .join(' '),
      figures: [
        { id: 'range', label: 'Height, 99 % of it', value: range, unit: 'mm' },
        { id: 'steep', label: `Steeper than ${STEEP_DEGREES}°`, value: steepShare, unit: '%', limit: 2 },
        { id: 'tilt', label: 'Mean tilt of the normals', value: tilt, unit: '', limit: 0.02 },
        ...(isIntegrated
          ? [{ id: 'told', label: 'Depth by the given normals', value: toldMm, unit: 'mm' }]
          : []),
        ...(!readsTone
          ? []
          : [
              {
                id: 'bright',
                label: 'Bright stands out, by thin lines and shading',
                value: 50 + 50 * evidence.together,
                unit: '%',
              },
              ...(isLit(chosen)
                ? [{ id: 'light', label: 'Light from', value: lightOf(chosen, light), unit: '°' }]
                : []),
            ]),
      ],
    };
  },
});
