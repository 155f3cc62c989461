import { painting } from '../../../masks/cover.ts';
import { type MaskStroke, strokesSchema } from '../../../masks/mask.ts';
import { data } from '../../../settings/kinds.ts';
import { runSteps } from '../../../work/steps.ts';
import { KEPT_SIZE } from '../kept.ts';
import { partKind } from './part.ts';

/** Strokes that are kept drawn, so that one more is not all of them again. */
const KEPT_STROKES = 32;

/** What is painted by hand, stroke by stroke; one that erases takes earlier ones away. */
export const strokes = partKind({
  title: 'Painted',
  settings: {
    strokes: data<MaskStroke[]>({
      ofPicture: true,
      onSheets: true,
      label: 'Strokes',
      help: 'What is painted and erased, in shares of the tile. Strokes stay with their tile.',
      default: [],
      schema: strokesSchema,
      example: '[{"points":[[0.2,0.3],[0.4,0.3]],"radius":0.05,"softness":0.5,"erase":false}]',
      words: (value) => (value.length === 1 ? '1 stroke' : `${value.length} strokes`),
    }),
  },
  reads: () => [],
  async values({ strokes: all }, { frame, context }) {
    if (all.length === 0) return 0;
    const { width, height, edges, size } = frame;
    const isKept = size <= KEPT_SIZE;
    const before = isKept ? all.slice(0, KEPT_STROKES * Math.floor((all.length - 1) / KEPT_STROKES)) : [];
    const drawn = (some: readonly MaskStroke[], out: Float32Array) =>
      runSteps(painting(some, out, width, height, edges), context.checkpoint);
    const empty = () => new Float32Array(width * height);
    const known =
      before.length > 0 ? await context.part('painted', before, () => drawn(before, empty())) : null;
    return drawn(all.slice(before.length), known ? known.slice() : empty());
  },
});
