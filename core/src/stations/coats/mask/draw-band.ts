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

/** Rows of a part of a mask, in their place in `into`. */
export const drawBand = task(
  'drawBand',
  async (checkpoint, part: Part, frame: Frame, into: Float32Array, { from, to }: Band): Promise<void> => {
    const draw = drawerOf(part, frame)!;
    for (let at = from; at < to; at += PAUSE) {
      draw(into, at, Math.min(to, at + PAUSE));
      await checkpoint((at - from) / (to - from));
    }
  },
);

/** The values of a part that is drawn row by row, by all of the team; null where it is not. */
export async function drawnValues(part: Part, { frame, context }: Scene): Promise<Float32Array | null> {
  if (!drawerOf(part, frame)) return null;
  const { team, checkpoint } = context;
  const { width, height } = frame;
  // What others are told of the tile does not carry every stroke of its zones.
  const told = { ...frame, masks: [] };
  const into = team.empty(width * height);
  const bands = width * height < LEAST_SHARED ? [{ from: 0, to: height }] : bandsOf(height, team);
  await team.each(
    drawBand,
    bands.map((band): [Part, Frame, Float32Array, Band] => [part, told, into, band]),
    () => {},
    checkpoint,
  );
  return into;
}
