import { type Corners, cropMapper, isFrame } from '@zesty-tile/core';
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import type { Look, Size } from '../../bench/floor/geometry.ts';
import { useBench } from '../../bench/state.ts';
import { endGesture } from '../../bench/steps.ts';
import { ARROWS } from '../arrows.ts';

const NAMES = ['upper left', 'upper right', 'lower right', 'lower left'];
const STEP = 0.001;
const LINES = 8;
/** How far outside the photo a corner may lie, in shares of it. */
const OUTSIDE = 0.25;

const clamped = (value: number) => Math.round(1e4 * Math.min(1 + OUTSIDE, Math.max(-OUTSIDE, value))) / 1e4;

interface CornerHandlesProps {
  look: Look;
  tile: Size;
  corners: Corners;
}

/** Four corners on a photo taken at a slant; while one is dragged a grid shows what will be straight. */
export function CornerHandles({ look, tile, corners }: CornerHandlesProps) {
  const setDials = useBench((s) => s.setDials);
  const [dragged, setDragged] = useState<number | null>(null);
  const start = useRef<{ x: number; y: number; corner: [number, number] } | null>(null);
  const scale = look.edge / tile.width;
  const crop = useBench((s) => s.recipe.stations.square);
  const mapper = cropMapper(tile.width, tile.height, crop);
  const onStage = ([x, y]: [number, number]) => `${look.x + x * scale},${look.y + y * scale}`;
  const place = (u: number, v: number) => onStage(mapper.at(u, v));
  const move = (k: number, to: [number, number]) => {
    const next = corners.map((corner, n) => (n === k ? [clamped(to[0]), clamped(to[1])] : corner)) as Corners;
    setDials('square', { corners: next }, `corner ${k}`);
  };
  const lines = Array.from({ length: LINES - 1 }, (_, k) => (k + 1) / LINES);
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot stand in a drawing
    <svg
      style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
      role="group"
      aria-label="Four corners on the photo"
      data-corners
    >
      <polygon
        points={corners.map(([x, y]) => onStage([x * tile.width, y * tile.height])).join(' ')}
        fill="#fff"
        fillOpacity=".06"
        stroke="#fff"
        strokeWidth="1.5"
      />
      {dragged !== null && isFrame(corners) && (
        <g stroke="#fff" strokeOpacity=".75" data-grid>
          {lines.flatMap((t) => [
            <polyline key={`u${t}`} points={`${place(t, 0)} ${place(t, 1)}`} />,
            <polyline key={`v${t}`} points={`${place(0, t)} ${place(1, t)}`} />,
          ])}
        </g>
      )}
      {corners.map(([x, y], k) => (
        <circle
          key={NAMES[k]}
          cx={look.x + x * tile.width * scale}
          cy={look.y + y * tile.height * scale}
          r="8"
          fill="#fff"
          stroke="#1d1d1d"
          strokeWidth="2"
          style={{ pointerEvents: 'all', cursor: 'move' }}
          role="slider"
          tabIndex={0}
          aria-label={`Corner, ${NAMES[k]}`}
          aria-valuenow={Math.round(1000 * x) / 10}
          aria-valuetext={`${(100 * x).toFixed(1)} % across, ${(100 * y).toFixed(1)} % down`}
          onPointerDown={(event: PointerEvent<SVGElement>) => {
            event.stopPropagation();
            endGesture();
            event.currentTarget.setPointerCapture(event.pointerId);
            start.current = { x: event.clientX, y: event.clientY, corner: [x, y] };
            setDragged(k);
          }}
          onPointerMove={(event: PointerEvent<SVGElement>) => {
            const from = start.current;
            if (!from) return;
            move(k, [
              from.corner[0] + (event.clientX - from.x) / (scale * tile.width),
              from.corner[1] + (event.clientY - from.y) / (scale * tile.height),
            ]);
          }}
          onPointerUp={() => {
            start.current = null;
            setDragged(null);
          }}
          onKeyDown={(event: KeyboardEvent) => {
            const arrow = ARROWS[event.key];
            if (!arrow) return;
            event.preventDefault();
            event.stopPropagation();
            const by = STEP * (event.shiftKey ? 10 : 1);
            move(k, [x + arrow[0] * by, y + arrow[1] * by]);
          }}
        />
      ))}
    </svg>
  );
}
