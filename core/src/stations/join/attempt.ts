import type { Raster } from '../../raster/raster.ts';
import type { Sides } from '../../raster/sides.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Checkpoint } from '../../work/checkpoint.ts';
import type { SquareOutput } from '../square/output.ts';
import { assemble, type Blend, type LayOut, layingOut } from './assemble.ts';
import { type FoundVectors, findVectors, type TileFrame } from './found-vectors.ts';
import type { JoinInput } from './input.ts';
import { type SeamScore, seamScore } from './score/score.ts';
import { type FoundSeams, seeking } from './seams.ts';
import type { BLENDS, JoinSettings, Method } from './settings.ts';
import { spreadJumps } from './spread.ts';
import { joins, reachOf, straightVectors, type Vector } from './vectors.ts';

/** A way of joining, with all that was found for it. */
export interface Attempt {
  method: Exclude<Method, 'propose'>;
  blend: JoinSettings['blend'];
  from: FoundVectors;
  reach: Vector;
  seams: FoundSeams;
  picture: Raster;
}

const NO_SEAMS: FoundSeams = { cutX: null, cutY: null, bendX: null, bendY: null };

export const blendOf = (method: Method, blend: (typeof BLENDS)[number]): Blend =>
  method === 'mix' ? 'mix' : blend;

/** Methods that leave nothing to overlap: the tile is the crop. */
export const takesCrop = (method: Method): boolean => method === 'none' || method === 'spread';

/** A tile without any joining: the crop of a picture alone. */
export const cropOnly = (picture: Raster, { margins }: SquareOutput, { width, height }: Sides): Raster =>
  picture.cut(margins.left, margins.top, width, height);

/** The tile at the working size by one method, made once for deciding and running. */
export function attempt(
  input: JoinInput,
  frame: TileFrame,
  chosen: JoinSettings & { method: Exclude<Method, 'propose'> },
  context: WorkContext,
): Promise<Attempt> {
  const { method, blend, axes } = chosen;
  return context.part(
    'attempt',
    [method, blend, axes, chosen.overlap, chosen.from, chosen.vectors],
    async () => {
      const { margins } = input.square;
      const { picture } = input.even;
      const on = joins(axes);
      if (takesCrop(method) || axes === 'neither') {
        const room = { left: 0, right: 0, top: 0, bottom: 0 };
        const from: FoundVectors = { vectors: straightVectors([0, 0], room), by: 'straight', strength: null };
        const crop = cropOnly(picture, input.square, frame);
        const edges = {
          x: on.x ? ('wrap' as const) : ('mirror' as const),
          y: on.y ? ('wrap' as const) : ('mirror' as const),
        };
        const tile =
          method === 'spread' && axes !== 'neither'
            ? await spreadJumps(crop, edges, context.checkpoint)
            : crop;
        return { method, blend, from, reach: [0, 0], seams: NO_SEAMS, picture: tile };
      }
      const reach = reachOf(chosen.overlap, axes, frame.shape);
      const from = await findVectors(picture, margins, frame, chosen, context);
      const { seams, found } = seeking(frame, method === 'meet');
      const sides = { width: frame.width, height: frame.height };
      const laying = { sides, vectors: from.vectors, reach, blend: blendOf(method, blend) };
      const fresh = layingOut(picture, margins, laying, context);
      const lay: LayOut = (bend) =>
        bend ? fresh(bend) : context.part('laid out', [from.vectors, reach], () => fresh(null));
      const tile = await assemble(picture, margins, laying, seams, context, lay);
      return { method, blend, from, reach, seams: found, picture: tile };
    },
  );
}

/** The score of an attempt, along its own cuts. */
export const scoreOf = (
  made: Attempt,
  input: JoinInput,
  frame: TileFrame,
  axes: JoinSettings['axes'],
  checkpoint: Checkpoint,
): Promise<SeamScore> => {
  const cuts = { workingSize: frame.size, shape: frame.shape, ...made.seams };
  const { picture } = input.even;
  const spread = made.method === 'spread' ? cropOnly(picture, input.square, frame) : null;
  return seamScore(made.picture, picture, made.reach, joins(axes), cuts, spread, checkpoint);
};
