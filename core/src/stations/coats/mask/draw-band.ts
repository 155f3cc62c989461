import { PLANES } from '../../../memory/pool.ts';
import type { Band } from '../../../raster/band.ts';
import { bandsOf } from '../../../team/in-bands.ts';
import { task } from '../../../team/task.ts';
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

/** Rows of a part of a mask. They are handed over, as a helper would keep hold of a plane that it shares for long. */
export const drawBand = task(
  'drawBand',
  async (checkpoint, part: Part, frame: Frame, { from, to }: Band): Promise<Float32Array> => {
    const draw = drawerOf(part, frame)!;
    const rows = PLANES.take((to - from) * frame.width);
    for (let at = from; at < to; at += PAUSE) {
      draw(rows.subarray((at - from) * frame.width), at, Math.min(to, at + PAUSE));
      await checkpoint((at - from) / (to - from));
    }
    return rows;
  },
);

/** The values of a part that is drawn row by row, by all of the team; null where it is not. */
export async function drawnValues(part: Part, { frame, context }: Scene): Promise<Float32Array | null> {
  if (!drawerOf(part, frame)) return null;
  const { width, height } = frame;
  const out = PLANES.take(width * height);
  // What others are told of the tile does not carry every stroke of its zones.
  const told = { ...frame, masks: [] };
  const isSmall = out.length < LEAST_SHARED;
  const bands = isSmall ? [{ from: 0, to: height }] : bandsOf(height, context.team);
  const put = (rows: Float32Array, k: number) => {
    out.set(rows, bands[k].from * width);
    PLANES.give(rows);
  };
  const given = bands.map((band): [Part, Frame, Band] => [part, told, band]);
  await context.team.each(drawBand, given, put, context.checkpoint);
  return out;
}
