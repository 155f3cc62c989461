import { type Corners, cropMapper, isFrame } from '@zesty-tile/core';
import { useRef, useState } from 'react';
import type { Look, Size } from '../../bench/floor/geometry.ts';
import { Handle } from '../../bench/floor/handle.tsx';
import { useBench } from '../../bench/state.ts';
import { GridLines } from './grid-lines.tsx';

const NAMES = ['upper left', 'upper right', 'lower right', 'lower left'];
const STEP = 0.001;
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
  const gripped = useRef<[number, number]>([0, 0]);
  const scale = look.edge / tile.width;
  const crop = useBench((s) => s.recipe.stations.square);
  const mapper = cropMapper(tile.width, tile.height, crop);
  const onStage = ([x, y]: [number, number]) => `${look.x + x * scale},${look.y + y * scale}`;
  const move = (k: number, to: [number, number]) => {
    const next = corners.map((corner, n) => (n === k ? [clamped(to[0]), clamped(to[1])] : corner)) as Corners;
    setDials('square', { corners: next }, `corner ${k}`);
  };
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
        <GridLines across={8} down={8} place={(u, v) => onStage(mapper.at(u, v))} />
      )}
      {corners.map(([x, y], k) => (
        <Handle
          key={NAMES[k]}
          x={look.x + x * tile.width * scale}
          y={look.y + y * tile.height * scale}
          name={`Corner, ${NAMES[k]}`}
          now={Math.round(1000 * x) / 10}
          words={`${(100 * x).toFixed(1)} % across, ${(100 * y).toFixed(1)} % down`}
          onGrip={() => {
            gripped.current = [x, y];
            setDragged(k);
          }}
          onDrag={(dx, dy) => {
            const [fromX, fromY] = gripped.current;
            move(k, [fromX + dx / (scale * tile.width), fromY + dy / (scale * tile.height)]);
          }}
          onRelease={() => setDragged(null)}
          onStep={(dx, dy) => move(k, [x + dx * STEP, y + dy * STEP])}
        />
      ))}
    </svg>
  );
}
