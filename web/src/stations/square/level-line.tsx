import { type PointerEvent, useState } from 'react';
import { useBench } from '../../bench/state.ts';
import { useSquare } from './use-square.ts';

type Point = [number, number];

/** Shorter than this it was a slip of the hand. */
const SHORTEST = 12;

/** Draws a line along what is to be level or upright; the crop turns to it. */
export function LevelLine() {
  const [line, setLine] = useState<{ from: Point; to: Point } | null>(null);
  const at = (event: PointerEvent<SVGElement>): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    return [event.clientX - box.left, event.clientY - box.top];
  };
  return (
    <svg
      style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', cursor: 'crosshair' }}
      role="img"
      aria-label="Draw a line along what is level or upright"
      data-level
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        setLine({ from: at(event), to: at(event) });
      }}
      onPointerMove={(event) => {
        if (line) setLine({ ...line, to: at(event) });
      }}
      onPointerUp={() => {
        useSquare.setState({ drawing: false });
        if (!line) return;
        const [dx, dy] = [line.to[0] - line.from[0], line.to[1] - line.from[1]];
        if (Math.hypot(dx, dy) < SHORTEST) return;
        const degrees = (Math.atan2(dy, dx) * 180) / Math.PI;
        const turn = degrees - 90 * Math.round(degrees / 90);
        useBench
          .getState()
          .setDials('square', { turnDegrees: Math.round(turn * 20) / 20 }, 'level by a line');
      }}
    >
      {line && (
        <g strokeLinecap="round">
          {(
            [
              ['#000', 4],
              ['#fff', 2],
            ] as const
          ).map(([stroke, width]) => (
            <path
              key={stroke}
              d={`M${line.from.join(' ')}L${line.to.join(' ')}`}
              stroke={stroke}
              strokeWidth={width}
            />
          ))}
        </g>
      )}
    </svg>
  );
}
