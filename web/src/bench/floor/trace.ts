import { radiusShare, type Stroke } from '@zesty-tile/core';
import { type BrushPlane, longerEdge, stageAt } from './use-brush.ts';

/** Traces a stroke in the context's colour; where the tile is laid, once for each that it may show in. */
export function traceStroke(
  context: CanvasRenderingContext2D,
  plane: BrushPlane,
  { points, radius }: Pick<Stroke, 'points' | 'radius'>,
  from: number,
  to: number,
): void {
  const width = 2 * radius * longerEdge(plane);
  context.lineCap = 'round';
  context.lineJoin = 'round';
  for (let j = from; j <= to; j++) {
    for (let i = from; i <= to; i++) {
      for (let k = 0; k < points.length; k++) {
        const [u0, v0] = points[Math.max(0, k - 1)];
        const [u, v, pressure = 1] = points[k];
        context.lineWidth = width * radiusShare(pressure);
        context.beginPath();
        context.moveTo(...stageAt(plane, u0 + i, v0 + j));
        context.lineTo(...stageAt(plane, u + i, v + j));
        context.stroke();
      }
    }
  }
}

/** The ring of a brush at the pointer, seen on bright and dark. */
export const RING = [
  { stroke: '#000', strokeOpacity: 0.55, strokeWidth: 3 },
  { stroke: '#fff', strokeOpacity: 1, strokeWidth: 1.25 },
] as const;
