import type { Ball } from '@zesty-tile/core';
import { useRef } from 'react';
import { Handle } from '../../bench/floor/handle.tsx';
import { useBench } from '../../bench/state.ts';
import type { FloorScene } from '../station.ts';

const STEP = 0.002;
const rounded = (value: number) => Math.round(1e4 * value) / 1e4;
const held = (value: number, low: number, high: number) => rounded(Math.min(high, Math.max(low, value)));

/** Over the photo: the ball that light is read from, its middle and its rim to be dragged. */
export function BallOverlay({ isPhoto, look, tile }: FloorScene) {
  const { ball, lightsFrom, shots } = useBench((s) => s.recipe.stations.source);
  const setDials = useBench((s) => s.setDials);
  const grip = useRef<Ball>({ x: 0, y: 0, radius: 0 });
  if (!isPhoto || !ball || lightsFrom !== 'ball' || shots.length === 0) return null;
  const longer = look.edge * Math.max(1, tile.height / tile.width);
  const [x, y, r] = [look.x + ball.x * longer, look.y + ball.y * longer, ball.radius * longer];
  const put = (next: Partial<Ball>) => setDials('source', { ball: { ...ball, ...next } }, 'ball');
  const hold = () => {
    grip.current = ball;
  };
  const moveBy = (from: Ball, dx: number, dy: number) =>
    put({ x: held(from.x + dx, 0, 1), y: held(from.y + dy, 0, 1) });
  const growBy = (from: Ball, by: number) => put({ radius: held(from.radius + by, 0.005, 0.5) });
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot stand in a drawing
    <svg
      role="group"
      aria-label="Ball that shows the light"
      style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
    >
      <circle cx={x} cy={y} r={r} fill="none" stroke="#000" strokeOpacity="0.55" strokeWidth="4" />
      <circle cx={x} cy={y} r={r} fill="none" stroke="#fff" strokeWidth="2" />
      <Handle
        x={x}
        y={y}
        radius={6}
        name="Middle of the ball"
        now={Math.round(100 * ball.x)}
        words={`${Math.round(100 * ball.x)} and ${Math.round(100 * ball.y)} hundredths of the photo`}
        onGrip={hold}
        onDrag={(dx, dy) => moveBy(grip.current, dx / longer, dy / longer)}
        onStep={(dx, dy) => moveBy(ball, dx * STEP, dy * STEP)}
      />
      <Handle
        x={x + r}
        y={y}
        radius={6}
        name="Rim of the ball"
        now={Math.round(100 * ball.radius)}
        words={`Radius ${Math.round(100 * ball.radius)} hundredths of the photo`}
        onGrip={hold}
        onDrag={(dx) => growBy(grip.current, dx / longer)}
        onStep={(dx, dy) => growBy(ball, (dx - dy) * STEP)}
      />
    </svg>
  );
}
