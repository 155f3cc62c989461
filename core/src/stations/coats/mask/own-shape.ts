import * as v from 'valibot';
import type { Loop } from '../../../outline/boundary.ts';
import { loopSchema } from '../../../outline/loop-schema.ts';
import { grown, loopCover } from '../../../outline/loops.ts';
import { data, number, text } from '../../../settings/kinds.ts';
import { runSteps } from '../../../work/steps.ts';
import { partKind } from './part.ts';

/** Numbers that all closed lines of a part may have together. */
export const MOST_LOOP_NUMBERS = 40000;

const loopsSchema = v.pipe(
  v.array(loopSchema),
  v.check(
    (loops) => loops.reduce((sum, { length }) => sum + length, 0) <= MOST_LOOP_NUMBERS,
    `must have at most ${MOST_LOOP_NUMBERS / 2} corners in all`,
  ),
);

/** Parts of the user's own shape, by where they lie in its texture coordinates. Nothing is selected until some are chosen. */
export const ownShape = partKind({
  title: 'Part of my shape',
  settings: {
    from: text({
      label: 'From',
      help: 'The file and the parts of it, in words.',
      default: '',
      longest: 200,
    }),
    loops: data<Loop[]>({
      label: 'Outlines',
      help: 'Closed lines around the parts, as texture coordinates with v downwards; the other way around holes.',
      default: [],
      schema: loopsSchema,
      example: '[[0.1,0.1,0.4,0.1,0.4,0.5]]',
      words: (loops) => (loops.length === 1 ? '1 outline' : `${loops.length} outlines`),
    }),
    marginMm: number({
      label: 'Margin',
      help: 'How far it goes beyond the outlines, so that no edge shows where the shape is folded.',
      default: 4,
      min: 0,
      max: 200,
      step: 0.5,
      unit: 'mm',
    }),
  },
  reads: () => [],
  async values({ loops, marginMm }, { frame, context }) {
    if (loops.length === 0) return 0;
    const cover = await runSteps(loopCover(loops, frame), context.checkpoint);
    const margin = (marginMm / 1000 / frame.edgeMetres) * frame.size;
    return runSteps(grown(cover, margin, frame), context.checkpoint);
  },
});
