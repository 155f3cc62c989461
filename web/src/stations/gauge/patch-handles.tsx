import type { Patch } from '@zesty-tile/core';
import { useRef } from 'react';
import type { Look, Size } from '../../bench/floor/geometry.ts';
import { Handle } from '../../bench/floor/handle.tsx';
import { useBench } from '../../bench/state.ts';
import { setPatches } from './use-gauge.ts';

const STEP = 0.001;
const within = (value: number) => Math.min(1, Math.max(0, Math.round(1e4 * value) / 1e4));

/** Over the photo: patches of known reflectance, to be dragged. */
export function PatchHandles({ look, tile }: { look: Look; tile: Size }) {
  const patches = useBench((s) => s.recipe.stations.gauge.patches);
  const grip = useRef({ x: 0, y: 0 });
  const edgeY = (look.edge * tile.height) / tile.width;
  const shorter = Math.min(look.edge, edgeY);
  const put = (k: number, next: Partial<Patch>) =>
    setPatches(
      patches.map((one, at) => (at === k ? { ...one, ...next } : one)),
      `patch ${k}`,
    );
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot stand in a drawing
    <svg
      role="group"
      aria-label="Patches of known reflectance"
      style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
    >
      {patches.map((patch, k) => {
        const [x, y] = [look.x + patch.x * look.edge, look.y + patch.y * edgeY];
        const radius = patch.radius * shorter;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: patches have no identity but their place
          <g key={k}>
            <circle cx={x} cy={y} r={radius} fill="none" stroke="#000" strokeOpacity="0.55" strokeWidth="3" />
            <circle cx={x} cy={y} r={radius} fill="none" stroke="#fff" strokeWidth="1.5" />
            <Handle
              x={x}
              y={y}
              radius={6}
              name={`Patch ${k + 1}`}
              now={k + 1}
              words={`Reflectance ${patch.reflectance}`}
              onGrip={() => {
                grip.current = { x: patch.x, y: patch.y };
              }}
              onDrag={(dx, dy) =>
                put(k, { x: within(grip.current.x + dx / look.edge), y: within(grip.current.y + dy / edgeY) })
              }
              onStep={(dx, dy) => put(k, { x: within(patch.x + dx * STEP), y: within(patch.y + dy * STEP) })}
            />
          </g>
        );
      })}
    </svg>
  );
}
