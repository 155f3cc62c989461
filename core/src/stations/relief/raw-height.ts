import { summing } from '../../planes/summing.ts';
import { statistics } from '../../statistics/statistics.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import { turnedNormals } from '../../tile/given.ts';
import type { Checkpoint } from '../../work/checkpoint.ts';
import { runSteps, type Steps } from '../../work/steps.ts';
import { bandSum } from './band-sum.ts';
import { BAND_COUNT, detailBands, logOf } from './bands.ts';
import { lightOf, type ReliefDecision, type ReliefInput } from './decision.ts';
import { greyOf } from './grey.ts';
import { type HeightShape, type HeightSource, LIGHT_SHARE, type RawHeight } from './height.ts';
import { heightOfNormals } from './integrate.ts';
import { fillJoints } from './joints/fill.ts';
import { netKey } from './joints/shaped.ts';
import { withoutPaint } from './paint.ts';
import { sigmaOf } from './scale.ts';
import type { ReliefSettings } from './settings.ts';
import { slantHeight } from './slant.ts';

export const weightsOf = (s: ReliefSettings) =>
  [s.band1, s.band2, s.band3, s.band4, s.band5, s.band6].slice(0, BAND_COUNT);

/** A range or a deviation below this is none. */
export const FLAT = 1e-5;
/** Above this size, which no dial is moved at, bands of tone are not held together. */
const HELD_SIZE = 2048;

/** The width that joints are filled over, which shows in the bands of tone. */
const widthKey = ({ joints, jointWidthMm }: ReliefSettings) => (joints === 'none' ? null : jointWidthMm);

/** How much of paint is ignored, which shows in the bands of tone; null where none is. */
export const paintKey = ({ paintShare }: ReliefSettings) => (paintShare === 0 ? null : `paint ${paintShare}`);

/** Nothing where there is no key, so that results of before stay known. */
export const withKey = (key: unknown): unknown[] => (key === null ? [] : [key]);

/** What height is made of, for these settings; `joint` says how much of each pixel is joint, where any are carved. */
export function rawHeight(
  { style }: ReliefInput,
  chosen: ReliefSettings,
  light: ReliefDecision['light'],
  joint: Float32Array | null,
  frame: Frame,
  context: WorkContext,
): RawHeight {
  const near = chosen.grey === 'nearness' ? chosen.greyColour : '';
  const degrees = lightOf(chosen, light);
  const { normal } = style.given;
  const { relief: painted } = style;
  const plainLog = async (checkpoint: Checkpoint) => {
    if (painted?.from === 'tone') return painted.height.slice();
    const grey = await runSteps(greyOf(style.picture, chosen.grey, near), checkpoint);
    const values = await runSteps(logOf(grey), checkpoint);
    if (chosen.paintShare === 0) return values;
    return runSteps(withoutPaint(values, style.picture, chosen.paintShare, frame.edges), checkpoint);
  };
  const log = async ({ checkpoint }: Pick<WorkContext, 'checkpoint'> = context) => {
    const values = await plainLog(checkpoint);
    if (joint) await fillJoints(values, joint, frame, { team: context.team, checkpoint });
    return values;
  };
  /** What Style made of a source, where it did. */
  const repainted = (from: HeightSource) => (painted?.from === from ? async () => painted.height : null);
  const bands = () =>
    context.part(
      'bands',
      [
        frame.edges,
        chosen.grey,
        near,
        ...withKey(netKey(chosen)),
        ...withKey(widthKey(chosen)),
        ...withKey(paintKey(chosen)),
      ],
      async () => detailBands(await log(), frame, frame.edges, context.checkpoint),
    );
  return {
    // It may be asked for when the evaluation is over.
    tone: () => log({ checkpoint: async () => {} }),
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
  { heightFrom, secondFrom, secondShare }: ReliefSettings,
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

/** How height is put together of it. */
export const shapeOf = (chosen: ReliefSettings, frame: Frame, isGiven: boolean): HeightShape => ({
  parts: heightParts(chosen, isGiven),
  weights: weightsOf(chosen),
  isDarkHigh: chosen.polarity === 'dark',
  flatten: chosen.flatten,
  softSigma: sigmaOf(chosen.softMm, frame),
  noiseFloor: chosen.noiseFloor,
});

/** A sum of parts as 0…1 between two of its values. */
export function* scaled(
  bands: Float32Array,
  { low, high }: { low: number; high: number },
): Steps<Float32Array> {
  if (high - low < FLAT) return new Float32Array(bands.length).fill(0.5);
  const scale = 1 / (high - low);
  return yield* summing([bands], [scale], { base: -low * scale, low: 0, high: 1 });
}

/** Heights in mm as 0…1 of the range they are given, or of their own. */
export async function inRangeMm(
  mm: Float32Array,
  given: [number, number] | null,
  { checkpoint }: WorkContext,
): Promise<{ height: Float32Array; rangeMm: [number, number] }> {
  const { min, max } = given ? { min: given[0], max: given[1] } : statistics(mm);
  const height = await runSteps(scaled(mm, { low: min, high: max }), checkpoint);
  return { height, rangeMm: [min, max] };
}
