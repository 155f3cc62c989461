import {
  type Canvas,
  copyOfCanvas,
  emptyCanvas,
  type PaintedChannel,
  painting,
} from '../../../paint/painting.ts';
import { MOST_STROKES, type PaintStroke, paintStrokesSchema } from '../../../paint/stroke.ts';
import { data } from '../../../settings/kinds.ts';
import { runSteps } from '../../../work/steps.ts';
import { KEPT_SIZE } from '../kept.ts';
import type { Scene } from '../scene.ts';
import { partKind } from './part.ts';

/** Strokes that are kept drawn, so that one more is not all of them again. */
const KEPT_STROKES = 32;

/** Strokes painted on an empty canvas, for a channel they carry or for their cover alone. */
export async function paintedCanvas(
  all: readonly PaintStroke[],
  channel: PaintedChannel | undefined,
  { frame, context }: Pick<Scene, 'frame' | 'context'>,
): Promise<Canvas> {
  const empty = () => emptyCanvas(frame.width * frame.height, channel);
  const paint = async (some: readonly PaintStroke[], canvas: Canvas) => {
    await runSteps(painting(some, canvas, channel ?? 'colour', frame), context.checkpoint);
    return canvas;
  };
  const isKept = frame.size <= KEPT_SIZE;
  const before = isKept ? all.slice(0, KEPT_STROKES * Math.floor((all.length - 1) / KEPT_STROKES)) : [];
  const known =
    before.length > 0 ? await context.part('painted', [channel, before], () => paint(before, empty())) : null;
  return paint(all.slice(before.length), known ? copyOfCanvas(known) : empty());
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
  reads: () => [],
  async values({ strokes: all }, scene) {
    return all.length === 0 ? 0 : (await paintedCanvas(all, undefined, scene)).cover;
  },
});
