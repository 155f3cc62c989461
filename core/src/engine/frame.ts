import { joins } from '../stations/join/vectors.ts';
import { sidesOf } from '../stations/shape.ts';
import { cropTurn } from '../stations/square/geometry.ts';
import type { Frame } from '../stations/types.ts';
import type { EvaluationRequest } from './evaluation.ts';

/** What every station knows of the tile, made at `size` pixels of its longer edge. */
export function frameOf(
  { source, recipe }: Pick<EvaluationRequest, 'source' | 'recipe'>,
  size: number,
): Frame {
  const { square, join } = recipe.stations;
  const on = joins(join.axes);
  return {
    size,
    ...sidesOf(square.shape, size),
    shape: square.shape,
    wantedSize: square.size,
    edgeMetres: square.edgeMetres,
    edges: { x: on.x ? 'wrap' : 'mirror', y: on.y ? 'wrap' : 'mirror' },
    seed: recipe.seed,
    zones: recipe.stations.gauge.zones,
    turnDegrees: cropTurn(source.width, source.height, square),
    green: recipe.stations.relief.normalY === 'up' ? 1 : -1,
  };
}
