import { type JoinDecision, joinLines } from '@zesty-tile/core';
import { useId, useMemo } from 'react';
import type { Look, Size } from '../../bench/floor/geometry.ts';
import { useBench } from '../../bench/state.ts';

interface CutOverlayProps {
  look: Look;
  tile: Size;
  stage: Size;
  lay: number;
  halfShift: boolean;
}

/** The strip in which Join's two copies overlapped, and the way the cut took through it, on every tile laid. */
export function CutOverlay({ look, tile, stage, lay, halfShift }: CutOverlayProps) {
  const decision = useBench((s) => s.recipe.decisions.join?.data) as JoinDecision | undefined;
  const id = useId();
  const lines = useMemo(() => (decision ? joinLines(decision) : null), [decision]);
  if (!lines || (!lines.x && !lines.y)) return null;
  const path = (points: [number, number][], turned: boolean) =>
    `M${points.map(([a, b]) => (turned ? `${b} ${a}` : `${a} ${b}`)).join('L')}`;
  const shift = halfShift ? 0.5 : 0;
  const edgeY = (look.edge * tile.height) / tile.width;
  // A strip may reach past an edge, so one more tile each way is drawn and clipped.
  const from = -1;
  const to = lay + 1;
  const places = Array.from({ length: (to - from) ** 2 }, (_, k) => [
    from + (k % (to - from)) - shift,
    from + Math.floor(k / (to - from)) - shift,
  ]);
  return (
    <svg
      width={stage.width}
      height={stage.height}
      style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}
      aria-hidden="true"
      data-cut
    >
      <defs>
        <clipPath id={`${id}laid`}>
          <rect x={look.x} y={look.y} width={look.edge * lay} height={edgeY * lay} />
        </clipPath>
        <g id={`${id}cut`} fill="none" vectorEffect="non-scaling-stroke">
          {lines.x && (
            <rect
              x={lines.x.strip[0]}
              y="0"
              width={lines.x.strip[1] - lines.x.strip[0]}
              height="1"
              fill="#fff"
              fillOpacity=".16"
            />
          )}
          {lines.y && (
            <rect
              x="0"
              y={lines.y.strip[0]}
              width="1"
              height={lines.y.strip[1] - lines.y.strip[0]}
              fill="#fff"
              fillOpacity=".16"
            />
          )}
          {(
            [
              ['#000', 3.5],
              ['#fff', 1.5],
            ] as const
          ).map(([stroke, width]) => (
            <g key={stroke} stroke={stroke} strokeWidth={width}>
              {lines.x && <path d={path(lines.x.points, false)} vectorEffect="non-scaling-stroke" />}
              {lines.y && <path d={path(lines.y.points, true)} vectorEffect="non-scaling-stroke" />}
            </g>
          ))}
        </g>
      </defs>
      <g clipPath={`url(#${id}laid)`}>
        {places.map(([i, j]) => (
          <use
            key={`${i} ${j}`}
            href={`#${id}cut`}
            transform={`translate(${look.x + i * look.edge} ${look.y + j * edgeY}) scale(${look.edge} ${edgeY})`}
          />
        ))}
      </g>
    </svg>
  );
}
