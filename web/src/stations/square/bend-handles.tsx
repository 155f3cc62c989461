import { type BendMesh, cropMapper, isFolded } from '@zesty-tile/core';
import { useRef } from 'react';
import type { Look, Size } from '../../bench/floor/geometry.ts';
import { Handle } from '../../bench/floor/handle.tsx';
import { useBench } from '../../bench/state.ts';
import { GridLines } from './grid-lines.tsx';

const STEP = 0.001;
const rounded = (value: number) => Math.round(1e4 * Math.min(1, Math.max(-1, value))) / 1e4;

interface BendHandlesProps {
  look: Look;
  tile: Size;
  bend: BendMesh;
}

/** Handles of a smooth bend on the photo; its lines will be straight in the tile. */
export function BendHandles({ look, tile, bend }: BendHandlesProps) {
  const setDials = useBench((s) => s.setDials);
  const gripped = useRef<[number, number]>([0, 0]);
  const crop = useBench((s) => s.recipe.stations.square);
  const scale = look.edge / tile.width;
  const plain = cropMapper(tile.width, tile.height, { ...crop, bend: null });
  const bent = cropMapper(tile.width, tile.height, crop);
  const onStage = ([x, y]: [number, number]): [number, number] => [look.x + x * scale, look.y + y * scale];
  const move = (k: number, [dx, dy]: [number, number]) => {
    const moves = bend.moves.map((one, n) =>
      n === k ? [rounded(dx), rounded(dy)] : one,
    ) as BendMesh['moves'];
    const next = { ...bend, moves };
    // A handle stops where the picture would be laid over itself.
    if (!isFolded(next)) setDials('square', { bend: next }, `bend ${k}`);
  };
  /** A way on the screen in edges of the crop, as they lie about a place. */
  const inCrop = (u: number, v: number, dx: number, dy: number): [number, number] => {
    const d = 1e-3;
    const [x, y] = plain.at(u, v);
    const [rightX, rightY] = plain.at(u + d, v);
    const [downX, downY] = plain.at(u, v + d);
    const across = [(rightX - x) / d, (rightY - y) / d];
    const down = [(downX - x) / d, (downY - y) / d];
    const area = (across[0] * down[1] - across[1] * down[0]) * scale;
    return [(dx * down[1] - dy * down[0]) / area, (across[0] * dy - across[1] * dx) / area];
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot stand in a drawing
    <svg
      style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
      role="group"
      aria-label="Warp on the photo"
      data-bend={`${bend.across} × ${bend.down}`}
    >
      <GridLines
        across={2 * (bend.across - 1)}
        down={2 * (bend.down - 1)}
        place={(u, v) => onStage(bent.at(u, v)).join(',')}
      />
      {bend.moves.map(([dx, dy], k) => {
        const [i, j] = [k % bend.across, Math.floor(k / bend.across)];
        const [u, v] = [i / (bend.across - 1), j / (bend.down - 1)];
        const [x, y] = onStage(plain.at(u + dx, v + dy));
        return (
          <Handle
            key={`${i} ${j}`}
            x={x}
            y={y}
            radius={6.5}
            name={`Warp, column ${i + 1}, row ${j + 1}`}
            now={Math.round(1000 * Math.hypot(dx, dy)) / 10}
            words={`moved ${(100 * dx).toFixed(1)} % across, ${(100 * dy).toFixed(1)} % down`}
            onGrip={() => {
              gripped.current = [dx, dy];
            }}
            onDrag={(byX, byY) => {
              const [moveX, moveY] = inCrop(u, v, byX, byY);
              move(k, [gripped.current[0] + moveX, gripped.current[1] + moveY]);
            }}
            onStep={(stepX, stepY) => move(k, [dx + stepX * STEP, dy + stepY * STEP])}
          />
        );
      })}
    </svg>
  );
}
