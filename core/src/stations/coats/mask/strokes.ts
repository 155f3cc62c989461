import { copyOf } from '../../../memory/copy.ts';
import { identityOf } from '../../../memory/identity.ts';
import {
  type Canvas,
  channelsOf,
  copyOfCanvas,
  emptyCanvas,
  type PaintedChannel,
} from '../../../paint/canvas.ts';
import { painting } from '../../../paint/painting.ts';
import { type PictureStamp, pictureStamp } from '../../../paint/picture-stamp.ts';
import { MOST_STROKES, type PaintStroke, paintStrokesSchema } from '../../../paint/stroke.ts';
import { data } from '../../../settings/kinds.ts';
import type { PictureRef } from '../../../tile/given.ts';
import { runSteps } from '../../../work/steps.ts';
import type { Scene } from '../scene.ts';
import { partKind } from './part.ts';

/** Strokes that are kept drawn, so that one more is not all of them again, and up to which size of the tile. */
const KEPT_STROKES = 32;
const KEPT_SIZE = 2048;

const hasFill = (strokes: readonly PaintStroke[]): boolean => strokes.some(({ fill }) => fill !== undefined);

/** Pictures that strokes are stamped with, by their hashes. */
function picturesOf(strokes: readonly PaintStroke[]): Record<string, PictureRef> {
  const found: Record<string, PictureRef> = {};
  for (const { prints } of strokes) if (prints?.picture) found[prints.picture.sha256] = prints.picture;
  return found;
}

/** Pixels of the shorter side that a picture is reduced to before it is a stamp. */
const STAMP_SIDE = 512;

async function stampsOf(
  strokes: readonly PaintStroke[],
  context: Scene['context'],
): Promise<Map<string, PictureStamp>> {
  const stamps = new Map<string, PictureStamp>();
  for (const [hash, ref] of Object.entries(picturesOf(strokes))) {
    const made = async () => pictureStamp(await context.picture(ref, STAMP_SIDE, 4));
    stamps.set(hash, await context.part('stamp', hash, made));
  }
  return stamps;
}

/**
 * Strokes painted on an empty canvas: the cover, and at least the channel that is wanted. Tiles up to that size keep it for whoever
 * asks next, so it must not be changed.
 */
export async function paintedCanvas(
  all: readonly PaintStroke[],
  wanted: readonly PaintedChannel[],
  { frame, context, below, isLasting }: Pick<Scene, 'frame' | 'context' | 'below' | 'isLasting'>,
): Promise<Canvas> {
  const fills = hasFill(all);
  const isKept = frame.size <= KEPT_SIZE && (!fills || isLasting('colour'));
  const needed = isKept ? channelsOf(all) : wanted;
  const channels = [...new Set([...needed, ...(fills ? (['colour'] as const) : [])])];
  const empty = () => emptyCanvas(frame.width * frame.height, channels);
  const stamps = await stampsOf(all, context);
  const paint = async (some: readonly PaintStroke[], canvas: Canvas) => {
    const ground = fills ? below.colour : null;
    await runSteps(painting(some, canvas, frame, ground, stamps), context.checkpoint);
    return canvas;
  };
  if (!isKept) return paint(all, empty());
  const ground = fills ? identityOf(below.colour) : null;
  const first = all.slice(0, KEPT_STROKES * Math.floor((all.length - 1) / KEPT_STROKES));
  return context.part('painted', [all, ground], async () => {
    if (first.length === 0) return paint(all, empty());
    const known = await context.part('painted first', [first, channels, ground], () => paint(first, empty()));
    return paint(all.slice(first.length), copyOfCanvas(known));
  });
}

/** What is painted by hand, stroke by stroke; one that erases takes earlier ones away. */
export const strokes = partKind({
  title: 'Painted',
  settings: {
    strokes: data<PaintStroke[]>({
      ofPicture: true,
      onSheets: true,
      label: 'Strokes',
      help: `What is painted and erased, in shares of the tile; at most ${MOST_STROKES} strokes. They stay with their tile.`,
      default: [],
      schema: paintStrokesSchema,
      example: '[{"points":[[0.2,0.3],[0.4,0.3]],"radius":0.05,"softness":0.5,"erase":false}]',
      words: (value) => (value.length === 1 ? '1 stroke' : `${value.length} strokes`),
    }),
  },
  pictures: ({ strokes: all }) => picturesOf(all),
  reads: ({ strokes: all }) => (hasFill(all) ? ['colour'] : []),
  async values({ strokes: all }, scene) {
    return all.length === 0 ? 0 : copyOf((await paintedCanvas(all, [], scene)).cover);
  },
});
