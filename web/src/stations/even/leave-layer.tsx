import type { LeaveStroke } from '@zesty-tile/core';
import { useEffect, useMemo, useRef } from 'react';
import type { Size } from '../../bench/floor/geometry.ts';
import { RING, traceStroke } from '../../bench/floor/trace.ts';
import { type BrushPlane, longerEdge, stageAt, useBrush } from '../../bench/floor/use-brush.ts';
import { useBench } from '../../bench/state.ts';
import { addLeaveStroke, leaveStroke, useLeave } from './use-leave.ts';

const TINT = '#ffb300';
const TINT_OPACITY = 0.42;

/** Draws a stroke, or takes away where it erases, within the laid crops. */
function paint(context: CanvasRenderingContext2D, plane: BrushPlane, stroke: LeaveStroke, lay: number): void {
  const { look, tile } = plane;
  context.save();
  context.beginPath();
  context.rect(look.x, look.y, look.edge * lay, ((look.edge * tile.height) / tile.width) * lay);
  context.clip();
  context.strokeStyle = TINT;
  context.globalCompositeOperation = stroke.erase ? 'destination-out' : 'source-over';
  context.filter =
    stroke.softness > 0 ? `blur(${(stroke.softness * stroke.radius * longerEdge(plane)) / 3}px)` : 'none';
  traceStroke(context, plane, stroke, 0, lay - 1);
  context.restore();
}

interface LeaveLayerProps {
  plane: BrushPlane;
  stage: Size;
  lay: number;
}

/** Over the evened crop while the brush is in hand: what is painted to be left alone, tinted. */
export function LeaveLayer({ plane, stage, lay }: LeaveLayerProps) {
  const { tool, radius, softness } = useLeave();
  const strokes = useBench((s) => s.recipe.stations.even.leave);
  const canvasRef = useRef<HTMLCanvasElement>(null);
  const { points, at, handlers } = useBrush(plane, { radius, begin: () => true, end: addLeaveStroke });
  // What was painted before is drawn once, not on every move of the pointer.
  const painted = useMemo(() => {
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, stage.width);
    canvas.height = Math.max(1, stage.height);
    const context = canvas.getContext('2d');
    for (const stroke of strokes) if (context) paint(context, plane, stroke, lay);
    return canvas;
  }, [strokes, plane, lay, stage]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the brush's own dials change the stroke in hand
  useEffect(() => {
    const canvas = canvasRef.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return;
    canvas.width = stage.width;
    canvas.height = stage.height;
    context.drawImage(painted, 0, 0);
    if (points) paint(context, plane, leaveStroke(points), lay);
  }, [points, painted, plane, lay, stage, tool, radius, softness]);
  const held = points?.at(-1) ?? at;
  const [x, y] = held ? stageAt(plane, held[0], held[1]) : [0, 0];
  return (
    <>
      <canvas
        ref={canvasRef}
        data-leave-layer={tool}
        style={{ position: 'absolute', inset: 0, cursor: 'none', touchAction: 'none', opacity: TINT_OPACITY }}
        {...handlers}
      />
      <svg
        aria-hidden="true"
        style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
        fill="none"
      >
        {held &&
          RING.map((line) => (
            <circle key={line.stroke} cx={x} cy={y} r={radius * longerEdge(plane)} {...line} />
          ))}
      </svg>
    </>
  );
}
