import type { KeyboardEvent, PointerEvent } from 'react';
import { GREY } from '../../theme.ts';

const RADIUS = 26;

/** Whole degrees from 0 up to, but without 360. */
export const wrappedDegrees = (degrees: number) => ((Math.round(degrees) % 360) + 360) % 360;

interface DirectionDiscProps {
  label: string;
  /** Clockwise from the top. */
  degrees: number;
  /** Marked by a ring beside. */
  marked?: number;
  onChange(degrees: number): void;
}

/** A direction in the picture, dragged round the rim of a disc. */
export function DirectionDisc({ label, degrees, marked, onChange }: DirectionDiscProps) {
  const put = (next: number) => onChange(wrappedDegrees(next));
  const move = (event: PointerEvent<HTMLDivElement>) => {
    if (event.buttons === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    const [dx, dy] = [event.clientX - box.left - box.width / 2, event.clientY - box.top - box.height / 2];
    if (Math.hypot(dx, dy) > 3) put((Math.atan2(dx, -dy) * 180) / Math.PI);
  };
  const at = (angle: number, radius: number) => {
    const turn = (angle * Math.PI) / 180;
    return { cx: Math.sin(turn) * radius, cy: -Math.cos(turn) * radius };
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={wrappedDegrees(degrees)}
      aria-valuemin={0}
      aria-valuemax={360}
      aria-valuetext={`${wrappedDegrees(degrees)} degrees from the top`}
      style={{
        cursor: 'grab',
        touchAction: 'none',
        borderRadius: '50%',
        width: 62,
        height: 62,
        flex: 'none',
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        move(event);
      }}
      onPointerMove={move}
      onKeyDown={(event: KeyboardEvent) => {
        const way = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
        if (!way) return;
        event.preventDefault();
        put(degrees + way * (event.shiftKey ? 10 : 1));
      }}
    >
      <svg width="62" height="62" viewBox="-31 -31 62 62" aria-hidden="true">
        <circle r={RADIUS} fill={GREY.card} stroke={GREY.ink} />
        {marked !== undefined && (
          <circle {...at(marked, RADIUS)} r="3.5" fill="none" stroke={GREY.ink} strokeWidth="1.5" />
        )}
        <line x1="0" y1="0" x2={at(degrees, RADIUS).cx} y2={at(degrees, RADIUS).cy} stroke={GREY.ink} />
        <circle {...at(degrees, RADIUS - 4)} r="5" fill={GREY.ink} stroke="#fff" />
      </svg>
    </div>
  );
}
