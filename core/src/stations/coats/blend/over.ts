import type { Triple } from '../../../kernels/blend-planes/reference.ts';
import { KERNELS } from '../../../kernels/kernels.ts';
import { PLANES } from '../../../memory/pool.ts';
import { type Band, bandParts } from '../../../raster/band.ts';
import type { Raster } from '../../../raster/raster.ts';
import { partOf, type SurfaceChannel, strided } from '../../../surface/surface.ts';
import type { Sharing } from '../../../team/context.ts';
import { eachBand } from '../../../team/in-bands.ts';
import { task } from '../../../team/task.ts';
import { ALONE } from '../../../team/team.ts';
import { inParts, type Steps } from '../../../work/steps.ts';
import { BLEND_MODES, type BlendName } from './modes.ts';

/** Values 0..1 whose colours are looked up in a table for each channel when they are wanted, so that no picture of them is held. */
export interface Ramped {
  values: Float32Array;
  tables: readonly Float32Array[];
}

/** Colours that lie above: one for the whole tile, a picture, or a ramp; linear RGB. */
export type Above = Triple | Raster | Ramped;

/** Values above, one for the whole tile or a plane for each channel; or a ramp. */
type Values = readonly SurfaceChannel[] | Ramped;

const valuesOf = (above: Above): Values =>
  Array.isArray(above) || 'tables' in above ? (above as Values) : above.planes;

/** A part of the values above, one value a channel where it is one for all, for as long as they are worked with. */
function withPart(above: Values, from: number, to: number, work: (over: Float32Array[]) => void): void {
  if ('tables' in above) {
    const found = KERNELS.lookUp(above.values.subarray(from, to), above.tables);
    work(found);
    PLANES.give(...found);
    return;
  }
  work(above.map(strided).map((one) => partOf(one, from, to)));
}

/** A plane for each channel of the colours above, for as many pixels as the tile has. */
export function* colourPlanes(above: Above, count: number): Steps<Float32Array[]> {
  const planes = [0, 1, 2].map(() => new Float32Array(count));
  yield* inParts(count, (from, to) =>
    withPart(valuesOf(above), from, to, (over) => {
      for (const [c, part] of over.entries()) {
        if (part.length === 1) planes[c].fill(part[0], from, to);
        else planes[c].set(part, from);
      }
    }),
  );
  return planes;
}

/** What is blended with planes below, in their place. */
interface Blending {
  below: Float32Array[];
  above: Values;
  cover: SurfaceChannel;
  mode: BlendName;
  isEncoded: boolean;
}

/** Values between two pauses, which are worth a task of their own. */
const PART = 2 ** 16;

/** Blends the values from one place to another. */
export const blendBand = task(
  'blendBand',
  async (checkpoint, { below, above, cover, mode, isEncoded }: Blending, band: Band): Promise<void> => {
    const share = strided(cover);
    for (const { from, to } of bandParts(band, PART)) {
      const planes = below.map((plane) => plane.subarray(from, to));
      withPart(above, from, to, (over) => {
        KERNELS.blendPlanes(planes, over, partOf(share, from, to), BLEND_MODES[mode], isEncoded);
      });
      await checkpoint((to - band.from) / (band.to - band.from));
    }
  },
);

/** Blends by all of a team. What it does not see is copied for it, and planes below are put back. */
async function blended(how: Blending, { team, checkpoint }: Sharing): Promise<void> {
  const copies = new Map<Float32Array, Float32Array>();
  const seen = (values: Float32Array): Float32Array => {
    const copy = copies.get(values) ?? team.shared(values);
    if (copy !== values) copies.set(values, copy);
    return copy;
  };
  const channel = (values: SurfaceChannel) => (typeof values === 'number' ? values : seen(values));
  const below = how.below.map(seen);
  const above =
    'tables' in how.above ? { ...how.above, values: seen(how.above.values) } : how.above.map(channel);
  const shared = { ...how, below, above, cover: channel(how.cover) };
  await eachBand(blendBand, [shared], below[0].length, { team, checkpoint }, PART);
  for (const [k, plane] of how.below.entries()) if (below[k] !== plane) plane.set(below[k]);
  team.give(...copies.values());
}

/**
 * Blends a colour into the planes of a picture, in place: linear RGB 0..1. `cover` is how much of each pixel is covered,
 * 0..1. Modes are applied to sRGB-encoded values, or to linear light where `isLinear`; normal blending is always in linear
 * light, as paint that covers a share of a surface reflects that share of the light.
 */
export const blendColour = (
  { planes }: Raster,
  above: Above,
  cover: SurfaceChannel,
  mode: BlendName,
  isLinear: boolean,
  context: Sharing,
): Promise<void> => {
  const isEncoded = !isLinear && mode !== 'normal';
  return blended({ below: planes, above: valuesOf(above), cover, mode, isEncoded }, context);
};

/**
 * Blends values 0..1 of one channel (roughness, metallic, opacity) by a mode, as they are. What is one value for the whole
 * tile stays one; a plane below is written over.
 */
export async function blendChannel(
  below: SurfaceChannel,
  above: SurfaceChannel,
  cover: SurfaceChannel,
  mode: BlendName,
  count: number,
  context: Sharing,
): Promise<SurfaceChannel> {
  if ([below, above, cover].every((one) => typeof one === 'number')) {
    const one = Float32Array.of(below as number);
    await blended(
      { below: [one], above: [above], cover, mode, isEncoded: false },
      { ...context, team: ALONE },
    );
    return one[0];
  }
  const out = typeof below === 'number' ? context.team.take(count).fill(below) : below;
  await blended({ below: [out], above: [above], cover, mode, isEncoded: false }, context);
  return out;
}
