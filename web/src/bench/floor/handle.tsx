import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { endGesture } from '../steps.ts';
import { ARROWS } from './arrows.ts';

interface HandleProps {
  x: number;
  y: number;
  radius?: number;
  name: string;
  /** Where it stands, as a figure and in words. */
  now: number;
  words: string;
  onGrip?(): void;
  /** By how many CSS pixels it was dragged from where it was gripped. */
  onDrag(dx: number, dy: number): void;
  onRelease?(): void;
  /** By how many steps an arrow key moves it. */
  onStep(dx: number, dy: number): void;
  /** Asked for by Delete, where it can be removed. */
  onDelete?(): void;
}

/** A round handle in a drawing over the Floor, for the pointer and for keys; with Shift a key moves ten steps. */
export function Handle({
  x,
  y,
  radius = 8,
  name,
  now,
  words,
  onGrip,
  onDrag,
  onRelease,
  onStep,
  onDelete,
}: HandleProps) {
  const start = useRef<{ x: number; y: number } | null>(null);
  return (
    <circle
      cx={x}
      cy={y}
      r={radius}
      fill="#fff"
      stroke="#1d1d1d"
      strokeWidth="2"
      style={{ pointerEvents: 'all', cursor: 'move' }}
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuenow={now}
      aria-valuetext={words}
      onPointerDown={(event: PointerEvent<SVGElement>) => {
        event.stopPropagation();
        endGesture();
        event.currentTarget.setPointerCapture(event.pointerId);
        start.current = { x: event.clientX, y: event.clientY };
        onGrip?.();
      }}
      onPointerMove={(event: PointerEvent<SVGElement>) => {
        const from = start.current;
        if (from) onDrag(event.clientX - from.x, event.clientY - from.y);
      }}
      onPointerUp={() => {
        start.current = null;
        onRelease?.();
      }}
      onKeyDown={(event: KeyboardEvent) => {
        if (onDelete && (event.key === 'Delete' || event.key === 'Backspace')) {
          event.preventDefault();
          event.stopPropagation();
          onDelete();
        }
        const arrow = ARROWS[event.key];
        if (!arrow) return;
        event.preventDefault();
        event.stopPropagation();
        const steps = event.shiftKey ? 10 : 1;
        onStep(arrow[0] * steps, arrow[1] * steps);
      }}
    />
  );
}
