import { type Band, bandParts } from '../../../raster/band.ts';
import { eachBand } from '../../../team/in-bands.ts';
import { task } from '../../../team/task.ts';
import { ALONE } from '../../../team/team.ts';
import type { Frame } from '../../../tile/frame.ts';
import type { Scene } from '../scene.ts';
import type { PartKind } from './part.ts';
import { PART_KINDS, type Part } from './parts.ts';

/** Rows between two pauses: noise of several octaves takes a millisecond for some of them. */
const PAUSE = 16;
/** From this many pixels on it is worth asking others. */
const LEAST_SHARED = 128 ** 2;

const drawerOf = (part: Part, frame: Frame) =>
  (PART_KINDS[part.by] as unknown as PartKind).rows?.(part as never, frame) ?? null;

/** Rows of a part of a mask, in their place in a plane that all of a team see. */
export const drawBand = task(
  'drawBand',
  async (checkpoint, part: Part, frame: Frame, out: Float32Array, { from, to }: Band): Promise<void> => {
    const draw = drawerOf(part, frame)!;
    for (const rows of bandParts({ from, to }, PAUSE)) {
      draw(out.subarray(rows.from * frame.width, rows.to * frame.width), rows.from, rows.to);
      await checkpoint((rows.to - from) / (to - from));
    }
  },
);

/** The values of a part that is drawn row by row, by all of the team; null where it is not. */
export async function drawnValues(part: Part, { frame, context }: Scene): Promise<Float32Array | null> {
  if (!drawerOf(part, frame)) return null;
  const { width, height } = frame;
  const out = context.team.take(width * height);
  // What others are told of the tile does not carry every stroke of its zones.
  const told = { ...frame, masks: [] };
  const isSmall = out.length < LEAST_SHARED;
  await eachBand(drawBand, [part, told, out], height, isSmall ? { ...context, team: ALONE } : context);
  return out;
}
