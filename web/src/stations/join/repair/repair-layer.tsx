import { type BrushRepair, repairPlace } from '@zesty-tile/core';
import { type ReactNode, useLayoutEffect, useMemo, useRef } from 'react';
import type { Size } from '../../../bench/floor/geometry.ts';
import { RING } from '../../../bench/floor/trace.ts';
import {
  type BrushPlane,
  type BrushPoint,
  longerEdge,
  stageAt,
  useBrush,
} from '../../../bench/floor/use-brush.ts';
import { useBench } from '../../../bench/state.ts';
import { previewStroke } from './preview.ts';
import { addStroke, askGrafts, strokeOf, takeFrom, useRepair, wayFrom } from './use-repair.ts';

interface RepairLayerProps {
  plane: BrushPlane;
  picture: HTMLCanvasElement;
  stage: Size;
  lay: number;
  /** Repairs that the picture on the Floor has already. */
  laid: number;
}

const OUTSIDE = 2;

/** The picture at about the size at which it is seen: a pattern is not averaged when it is drawn smaller. */
function reduced(picture: HTMLCanvasElement, edge: number): HTMLCanvasElement {
  const width = Math.round(edge);
  if (width >= picture.width) return picture;
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = Math.max(1, Math.round((width * picture.height) / picture.width));
  const context = canvas.getContext('2d');
  if (!context) return picture;
  context.imageSmoothingQuality = 'high';
  context.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return canvas;
}

/** Draws something at a place of every repeat of the tile that is seen. */
function circlesAt(
  plane: BrushPlane,
  repeats: number,
  place: BrushPoint | [number, number],
  draw: (x: number, y: number, key: string) => ReactNode,
): ReactNode[] {
  const [u, v] = [place[0] - Math.floor(place[0]), place[1] - Math.floor(place[1])];
  const { look, tile } = plane;
  const right = look.x + repeats * look.edge + OUTSIDE;
  const bottom = look.y + (repeats * look.edge * tile.height) / tile.width + OUTSIDE;
  const found: ReactNode[] = [];
  for (let j = 0; j <= repeats; j++) {
    for (let i = 0; i <= repeats; i++) {
      const [x, y] = stageAt(plane, u + i, v + j);
      const isSeen = x > look.x - OUTSIDE && y > look.y - OUTSIDE && x < right && y < bottom;
      if (isSeen) found.push(draw(x, y, `${i} ${j}`));
    }
  }
  return found;
}

/** Where the next press takes from, with words: no brush is drawn meanwhile. */
function SourceCross({ x, y }: { x: number; y: number }) {
  const cross = `M${x - 14} ${y}H${x - 4}M${x + 4} ${y}H${x + 14}M${x} ${y - 14}V${y - 4}M${x} ${y + 4}V${y + 14}`;
  return (
    <g data-choosing-source>
      <path d={cross} stroke="#000" strokeOpacity=".6" strokeWidth="4" />
      <path d={cross} stroke="#ffd23f" strokeWidth="2" />
      <text
        x={x + 18}
        y={y - 10}
        fill="#fff"
        stroke="#000"
        strokeWidth="3"
        strokeOpacity=".6"
        paintOrder="stroke"
        fontSize="12.5"
      >
        Press to take from here
      </text>
    </g>
  );
}

/** Rings at places: where a patch is asked for, one came to repair, or that the list points at. */
function PlaceMarks({ plane, lay, ring }: { plane: BrushPlane; lay: number; ring: number }) {
  const { spot, marked, at: lookedAt } = useRepair();
  const repairs = useBench((s) => s.recipe.stations.join.repairs);
  const markedRepair = marked === null ? null : repairs[marked];
  const markedAt = markedRepair && repairPlace(markedRepair);
  return (
    <>
      {spot &&
        circlesAt(plane, lay, [spot.x, spot.y], (x, y, key) => (
          <circle
            key={key}
            cx={x}
            cy={y}
            r={spot.radius * longerEdge(plane)}
            stroke="#ffd23f"
            strokeWidth="2"
          />
        ))}
      {lookedAt &&
        circlesAt(plane, lay, lookedAt, (x, y, key) => (
          <circle
            key={key}
            data-repair-at
            cx={x}
            cy={y}
            r={Math.max(12, 1.3 * ring)}
            stroke="#fff"
            strokeWidth="2"
            strokeDasharray="6 4"
          />
        ))}
      {markedAt &&
        circlesAt(plane, lay, markedAt, (x, y, key) => (
          <circle key={key} cx={x} cy={y} r={Math.max(10, ring)} stroke="#fff" strokeWidth="2.5" />
        ))}
    </>
  );
}

/** Over the joined tile while a repair tool is in use: strokes are seen as they are drawn, and until they are computed. */
export function RepairLayer({ plane, picture, stage, lay, laid }: RepairLayerProps) {
  const { tool, radius, softness, opacity, from, offset, follows, choosing } = useRepair();
  const repairs = useBench((s) => s.recipe.stations.join.repairs);
  const canvasRef = useRef<HTMLCanvasElement>(null);
  const begin = (at: [number, number], isTurned: boolean): boolean => {
    if (tool === 'graft') {
      void askGrafts(at);
      return false;
    }
    if (!from || choosing || isTurned) {
      takeFrom(at);
      return false;
    }
    return true;
  };
  const { points, at, handlers } = useBrush(plane, { radius, begin, end: addStroke });
  const small = useMemo(() => reduced(picture, plane.look.edge), [picture, plane.look.edge]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the tool's own dials change the stroke in use
  useLayoutEffect(() => {
    const canvas = canvasRef.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return;
    canvas.width = stage.width;
    canvas.height = stage.height;
    const waiting = repairs
      .slice(laid)
      .filter((one): one is BrushRepair => one.kind === 'clone' || one.kind === 'heal');
    const inHand = points ? [strokeOf(points, wayFrom([points[0][0], points[0][1]]))] : [];
    for (const stroke of [...waiting, ...inHand]) {
      previewStroke(context, small, plane, stroke, lay, stage);
    }
  }, [points, repairs, laid, small, plane, lay, stage, softness, opacity, radius]);
  const ring = radius * longerEdge(plane);
  const held = points?.at(-1) ?? at;
  const way = points ? wayFrom([points[0][0], points[0][1]]) : follows ? offset : null;
  const source: [number, number] | null = held && way ? [held[0] + way[0], held[1] + way[1]] : from;
  const isBrush = tool === 'clone' || tool === 'heal';
  const [cursorX, cursorY] = held ? stageAt(plane, held[0], held[1]) : [0, 0];
  return (
    <>
      <canvas
        ref={canvasRef}
        data-repair-layer={tool}
        data-waiting={repairs.length - laid}
        style={{ position: 'absolute', inset: 0, cursor: 'none', touchAction: 'none' }}
        {...handlers}
      />
      <svg
        aria-hidden="true"
        style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
        fill="none"
      >
        {held && isBrush && choosing && <SourceCross x={cursorX} y={cursorY} />}
        {held && !(isBrush && choosing) && (
          <g>
            {RING.map((line) => (
              <circle key={line.stroke} cx={cursorX} cy={cursorY} r={ring} {...line} />
            ))}
          </g>
        )}
        {isBrush &&
          source &&
          circlesAt(plane, lay, source, (x, y, key) => (
            <g key={key} data-taken-from>
              <circle cx={x} cy={y} r={ring} stroke="#000" strokeOpacity=".55" strokeWidth="3" />
              <circle cx={x} cy={y} r={ring} stroke="#ffd23f" strokeWidth="1.5" strokeDasharray="4 3" />
              <circle cx={x} cy={y} r="1.8" fill="#ffd23f" />
            </g>
          ))}
        <PlaceMarks plane={plane} lay={lay} ring={ring} />
      </svg>
    </>
  );
}
