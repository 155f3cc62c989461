import type { Stroke } from '@zesty-tile/core';
import { useLayoutEffect, useMemo, useRef } from 'react';
import type { Size } from './geometry.ts';
import { RING, traceStroke } from './trace.ts';
import { type BrushPlane, type BrushPoint, fromHome, longerEdge, stageAt, useBrush } from './use-brush.ts';

/** How what is covered shows: tinted, or by a veil over all the rest. */
const LOOKS = {
  tint: { colour: '#ffb300', opacity: 0.42 },
  veil: { colour: '#7a7a7a', opacity: 0.78 },
} as const;
type LookName = keyof typeof LOOKS;

type Painted = Stroke & { erase: boolean };

/** Draws within the laid tiles. */
function within(context: CanvasRenderingContext2D, plane: BrushPlane, lay: number, draw: () => void): void {
  const { look, tile } = plane;
  context.save();
  context.beginPath();
  context.rect(look.x, look.y, look.edge * lay, ((look.edge * tile.height) / tile.width) * lay);
  context.clip();
  draw();
  context.restore();
}

/** Draws a stroke, or removes where it erases; of a veil it is the other way round. */
function paint(
  context: CanvasRenderingContext2D,
  plane: BrushPlane,
  stroke: Painted,
  lay: number,
  { look, wraps }: { look: LookName; wraps: boolean },
): void {
  within(context, plane, lay, () => {
    context.strokeStyle = LOOKS[look].colour;
    const isTaken = stroke.erase === (look !== 'veil');
    context.globalCompositeOperation = isTaken ? 'destination-out' : 'source-over';
    // A veil is soon redrawn by what the engine says; a blur on every move would hold the pointer up.
    context.filter =
      look === 'tint' && stroke.softness > 0
        ? `blur(${(stroke.softness * stroke.radius * longerEdge(plane)) / 3}px)`
        : 'none';
    traceStroke(context, plane, stroke, wraps ? -1 : 0, wraps ? lay : lay - 1);
  });
}

/** Takes what is covered out of the veil, over every tile. */
function layMask(
  context: CanvasRenderingContext2D,
  plane: BrushPlane,
  mask: HTMLCanvasElement,
  lay: number,
): void {
  within(context, plane, lay, () => {
    context.globalCompositeOperation = 'destination-out';
    for (let j = 0; j <= lay; j++) {
      for (let i = 0; i <= lay; i++) {
        const [x, y] = stageAt(plane, i, j);
        const [right, down] = stageAt(plane, i + 1, j + 1);
        context.drawImage(mask, x, y, right - x, down - y);
      }
    }
  });
}

/** A cover 0…255 as a picture's opacity. */
export function maskOf({
  width,
  height,
  values,
}: {
  width: number;
  height: number;
  values: Uint8Array;
}): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const picture = new ImageData(width, height);
  const { data } = picture;
  for (let i = 0; i < values.length; i++) data[4 * i + 3] = values[i];
  canvas.getContext('2d')?.putImageData(picture, 0, 0);
  return canvas;
}

interface TintLayerProps {
  name: string;
  look: LookName;
  plane: BrushPlane;
  stage: Size;
  lay: number;
  /** Whether strokes come in again over the tile's edges. */
  wraps: boolean;
  /** What is covered already; shown by a veil alone. */
  mask: HTMLCanvasElement | null;
  /** Strokes that are not in it. */
  strokes: readonly Painted[];
  /** The brush in use, or null: then it is only looked at. */
  brush: { radius: number; softness: number; erase: boolean } | null;
  onStroke(points: BrushPoint[]): void;
}

/** Over the Floor: what is picked, tinted; with a brush in use it is drawn. */
export function TintLayer({
  name,
  look,
  plane,
  stage,
  lay,
  wraps,
  mask,
  strokes,
  brush,
  onStroke,
}: TintLayerProps) {
  const canvasRef = useRef<HTMLCanvasElement>(null);
  const radius = brush?.radius ?? 0;
  const { points, at, handlers } = useBrush(plane, { radius, begin: () => true, end: onStroke });
  // What was painted before is drawn once, not on every move of the pointer.
  const painted = useMemo(() => {
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, stage.width);
    canvas.height = Math.max(1, stage.height);
    const context = canvas.getContext('2d');
    if (!context) return canvas;
    if (look === 'veil') {
      within(context, plane, lay, () => {
        context.fillStyle = LOOKS.veil.colour;
        context.fillRect(0, 0, canvas.width, canvas.height);
      });
    }
    if (mask) layMask(context, plane, mask, lay);
    for (const stroke of strokes) paint(context, plane, stroke, lay, { look, wraps });
    return canvas;
  }, [look, mask, strokes, plane, lay, stage, wraps]);
  useLayoutEffect(() => {
    const canvas = canvasRef.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return;
    canvas.width = stage.width;
    canvas.height = stage.height;
    context.drawImage(painted, 0, 0);
    if (points && brush) paint(context, plane, { points: fromHome(points), ...brush }, lay, { look, wraps });
  }, [points, painted, plane, lay, stage, brush, look, wraps]);
  const held = points?.at(-1) ?? at;
  const [x, y] = held ? stageAt(plane, held[0], held[1]) : [0, 0];
  return (
    <>
      <canvas
        ref={canvasRef}
        data-tint-layer={name}
        data-tinted={mask ? 'yes' : undefined}
        style={{
          position: 'absolute',
          inset: 0,
          cursor: 'none',
          touchAction: 'none',
          opacity: LOOKS[look].opacity,
          pointerEvents: brush ? undefined : 'none',
        }}
        {...handlers}
      />
      {brush && (
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
      )}
    </>
  );
}
