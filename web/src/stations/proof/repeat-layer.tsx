import type { Size } from '../../bench/floor/geometry.ts';
import { RING } from '../../bench/floor/trace.ts';
import { type BrushPlane, stageAt } from '../../bench/floor/use-brush.ts';
import { useBench } from '../../bench/state.ts';
import { useProof } from './use-proof.ts';

/** Rings are drawn so many σ wide, and never smaller than can be seen. */
const WIDE = 2.5;
const LEAST = 9;

/** Over the tile: the spots that will be seen repeating, numbered, in the first tile that is laid. */
export function RepeatLayer({ plane, stage }: { plane: BrushPlane; stage: Size }) {
  const repeats = useBench((s) => s.repeats);
  const most = useBench((s) => s.recipe.stations.proof.most);
  const marked = useProof((s) => s.marked);
  const edgeY = (plane.look.edge * plane.tile.height) / plane.tile.width;
  const shorter = Math.min(plane.look.edge, edgeY);
  return (
    <svg
      aria-hidden="true"
      width={stage.width}
      height={stage.height}
      style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}
    >
      {repeats.slice(0, most).map((spot, k) => {
        const [x, y] = stageAt(plane, spot.x, spot.y);
        const radius = Math.max(LEAST, WIDE * spot.sigma * shorter);
        return (
          <g key={`${spot.x} ${spot.y} ${spot.sigma}`} fill="none" data-repeat={k + 1}>
            {RING.map((line) => (
              <circle
                key={line.stroke}
                cx={x}
                cy={y}
                r={radius}
                {...line}
                strokeWidth={marked === k ? 2 * line.strokeWidth : line.strokeWidth}
              />
            ))}
            <rect x={x + radius - 2} y={y - radius - 8} width={18} height={15} rx={3} fill="#1d1d1d" />
            <text x={x + radius + 7} y={y - radius + 3.5} textAnchor="middle" fontSize="11" fill="#fff">
              {k + 1}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
