import { cropMapper, type JoinDecision } from '@zesty-tile/core';
import { useRef, useState } from 'react';
import type { Look, Size } from '../../bench/floor/geometry.ts';
import { Handle } from '../../bench/floor/handle.tsx';
import { useBench } from '../../bench/state.ts';

type Pair = [number, number];

const STEP = 0.001;
/** Along its own axis an edge is at least a tenth of the crop, and it never leaves what can be set. */
function allowed(which: 'u' | 'v', [x, y]: Pair): Pair {
  const within = (value: number, least: number) =>
    Math.round(1e4 * Math.min(1.5, Math.max(least, value))) / 1e4;
  return which === 'u' ? [within(x, 0.1), within(y, -1.5)] : [within(x, -1.5), within(y, 0.1)];
}

/** The tile's two edges on the photo: where the copy begins that it is joined with. Dragged, they are by hand. */
export function VectorHandles({ look, tile }: { look: Look; tile: Size }) {
  const crop = useBench((s) => s.recipe.stations.square);
  const drawn = useBench((s) => s.recipe.stations.join);
  const decided = useBench((s) => s.recipe.decisions.join?.data) as JoinDecision | undefined;
  const setDials = useBench((s) => s.setDials);
  const gripped = useRef<Pair>([1, 0]);
  // The tile is laid about the crop's middle again with every move; what is dragged stays under the pointer meanwhile.
  const [heldCorner, setHeldCorner] = useState<readonly number[] | null>(null);
  if (!decided) return null;
  const byHand = drawn.from === 'hand' ? drawn.vectors : null;
  const { u, v } = byHand ?? decided.vectors;
  const corner = heldCorner ?? decided.vectors.corner;
  const scale = look.edge / tile.width;
  const mapper = cropMapper(tile.width, tile.height, crop);
  const place = (a: number, b: number): Pair => {
    const [x, y] = mapper.at(corner[0] + a * u[0] + b * v[0], corner[1] + a * u[1] + b * v[1]);
    return [look.x + x * scale, look.y + y * scale];
  };
  const take = (which: 'u' | 'v', vector: Pair) =>
    setDials('join', { from: 'hand', vectors: { u, v, [which]: allowed(which, vector) } }, `vector ${which}`);
  /** A way on the screen in edges of the crop, as they lie in its middle. */
  const inCrop = (dx: number, dy: number): Pair => {
    const across = [0, 1].map((k) => (mapper.at(1, 0.5)[k] - mapper.at(0, 0.5)[k]) * scale);
    const down = [0, 1].map((k) => (mapper.at(0.5, 1)[k] - mapper.at(0.5, 0)[k]) * scale);
    const area = across[0] * down[1] - across[1] * down[0];
    return [(dx * down[1] - dy * down[0]) / area, (across[0] * dy - across[1] * dx) / area];
  };
  const handle = (which: 'u' | 'v', name: string, [x, y]: Pair) => {
    const vector = which === 'u' ? u : v;
    return (
      <Handle
        x={x}
        y={y}
        name={name}
        now={Math.round(1000 * Math.hypot(...vector)) / 10}
        words={`${vector[0].toFixed(3)} across, ${vector[1].toFixed(3)} down, in edges of the crop`}
        onGrip={() => {
          gripped.current = vector;
          setHeldCorner(corner);
        }}
        onRelease={() => setHeldCorner(null)}
        onDrag={(dragX, dragY) => {
          const [dx, dy] = inCrop(dragX, dragY);
          take(which, [gripped.current[0] + dx, gripped.current[1] + dy]);
        }}
        onStep={(dx, dy) => take(which, [vector[0] + dx * STEP, vector[1] + dy * STEP])}
      />
    );
  };
  const origin = place(0, 0);
  const right = place(1, 0);
  const down = place(0, 1);
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot stand in a drawing
    <svg
      style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
      role="group"
      aria-label="Tile vectors on the photo"
      data-vectors={byHand ? 'hand' : decided.by}
    >
      <polygon
        points={[origin, right, place(1, 1), down].map((p) => p.join(',')).join(' ')}
        fill="#fff"
        fillOpacity=".08"
        stroke="#fff"
        strokeOpacity=".7"
        strokeDasharray="3 4"
      />
      {[right, down].map(([x, y]) => (
        <g key={`${x} ${y}`} strokeLinecap="round">
          <line
            x1={origin[0]}
            y1={origin[1]}
            x2={x}
            y2={y}
            stroke="#000"
            strokeOpacity=".6"
            strokeWidth="5"
          />
          <line x1={origin[0]} y1={origin[1]} x2={x} y2={y} stroke="#ffd23f" strokeWidth="2.5" />
        </g>
      ))}
      {handle('u', 'Tile vector to the right', right)}
      {handle('v', 'Tile vector down', down)}
    </svg>
  );
}
