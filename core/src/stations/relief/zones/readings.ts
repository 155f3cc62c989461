import { nearestMarked } from '../../../filters/distance.ts';
import { maskCover } from '../../../masks/cover.ts';
import type { Mask } from '../../../masks/mask.ts';
import { connectedParts } from '../../../raster/connected.ts';
import type { Edges } from '../../../raster/edges.ts';
import { Raster } from '../../../raster/raster.ts';
import { heldSides, type Sides } from '../../../raster/sides.ts';
import { resizingArea, resizingLanczos } from '../../../sampling/resize.ts';
import type { WorkContext } from '../../../team/context.ts';
import type { Frame } from '../../../tile/frame.ts';
import { inParts, runSteps, type Steps } from '../../../work/steps.ts';
import type { StyleOutput } from '../../style/output.ts';
import { carvingKey } from '../joints/shaped.ts';
import type { ReliefSettings } from '../settings.ts';
import type { ZoneReading } from './settings.ts';

/** Edge at which the shape of a zone is measured, whatever the size of the tile. */
const MEASURED_AT = 512;

type Given = Pick<ReliefSettings, 'zoneReadings'>;

/** Readings that change something, of zones that there are. */
const inUse = ({ zoneReadings }: Given, masks: readonly Mask[]) =>
  zoneReadings.flatMap(({ zone, reading, levelMm }) => {
    const mask = masks.find(({ id }) => id === zone);
    return mask && (reading !== 'rest' || levelMm !== 0) ? [{ mask, reading, levelMm }] : [];
  });

/** The zones that Relief reads in a way of their own. */
export const usedZones = (chosen: Given, masks: readonly Mask[]): readonly Mask[] =>
  inUse(chosen, masks).map(({ mask }) => mask);

/** What the readings of zones follow from; null where there are none. */
export function zonesKey(chosen: Given, masks: readonly Mask[]): unknown {
  const used = inUse(chosen, masks);
  return used.length === 0 ? null : used.map(({ mask, reading, levelMm }) => [mask.parts, reading, levelMm]);
}

/** How far each place of a zone is from its border, 0 there and 1 in the middle of each of its parts. */
export function* insideOf(cover: Float32Array, sides: Sides, edges: Edges): Steps<Float32Array> {
  const at = heldSides(sides, MEASURED_AT);
  const { width, height } = at;
  const isSmaller = width < sides.width;
  const whole = new Raster(sides.width, sides.height, [cover]);
  const small = isSmaller ? (yield* resizingArea(whole, width, height)).planes[0] : cover;
  const isIn = Uint8Array.from(small, (value) => (value >= 0.5 ? 1 : 0));
  const isOut = isIn.map((value) => 1 - value);
  const { distance } = yield* nearestMarked(isOut, at, edges);
  const { labels, sizes } = connectedParts(isIn, 1, at, edges, true);
  const deepest = new Float32Array(sizes.length);
  // A zone that is all of the tile has no border to rise from.
  const depthAt = (i: number) => Math.min(distance[i], width + height);
  for (let i = 0; i < labels.length; i++) {
    if (labels[i] >= 0) deepest[labels[i]] = Math.max(deepest[labels[i]], depthAt(i));
  }
  const share = Float32Array.from(labels, (label, i) => (label < 0 ? 0 : depthAt(i) / deepest[label]));
  if (!isSmaller) return share;
  const out = yield* resizingLanczos(new Raster(width, height, [share]), sides.width, sides.height, edges);
  return out.planes[0];
}

const round = (t: number): number => {
  const s = Math.min(1, Math.max(0, t));
  return Math.sqrt(s * (2 - s));
};

/** How much of the tone is left where a zone covers a place wholly. */
const TONE_LEFT: Record<ZoneReading, number> = { rest: 1, inverse: -1, flat: 0, raised: 0, recessed: 0 };
/** Which way a zone goes by its level. */
const WAY: Record<ZoneReading, 1 | -1> = { rest: 1, inverse: 1, flat: 1, raised: 1, recessed: -1 };

/** Reads zones in their own way, but for those that are selected by a map of Relief other than its joints: `tone` and `base` are heights in mm, changed in place. */
export async function readZones(
  tone: Float32Array,
  base: Float32Array,
  from: { style: StyleOutput; joints: Float32Array | null },
  chosen: ReliefSettings,
  frame: Frame,
  context: WorkContext,
): Promise<void> {
  for (const { mask, reading, levelMm } of inUse(chosen, frame.masks)) {
    const cover = await context.part('zone', [frame.edges, mask.parts, carvingKey(chosen)], () =>
      maskCover(mask, from, frame, context),
    );
    const isRound = reading === 'raised' || reading === 'recessed';
    const inside = isRound ? await runSteps(insideOf(cover, frame, frame.edges), context.checkpoint) : null;
    const less = 1 - TONE_LEFT[reading];
    const level = WAY[reading] * levelMm;
    await runSteps(
      inParts(tone.length, (from, to) => {
        for (let i = from; i < to; i++) {
          tone[i] *= 1 - less * cover[i];
          base[i] += level * cover[i] * (inside ? round(inside[i]) : 1);
        }
      }),
      context.checkpoint,
    );
  }
}
