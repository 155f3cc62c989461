import type { KeyboardEvent } from 'react';
import { GREY } from '../theme.ts';

const STEP = 0.02;

/** Words that stand over a picture's upper edge. */
export const splitLabel = {
  position: 'absolute',
  top: 0,
  padding: '1px 7px',
  background: GREY.sheet,
  color: GREY.ink,
  fontSize: 12,
  whiteSpace: 'nowrap',
  borderRadius: 4,
  pointerEvents: 'none',
} as const;

/** A line over two pictures in one place, named at both sides; dragged, or moved by the arrow keys. */
export function SplitLine({
  label,
  at,
  onMove,
  left,
  right,
}: {
  label: string;
  /** 0…1 from the left. */
  at: number;
  onMove(at: number): void;
  left: string;
  right: string;
}) {
  const put = (next: number) => onMove(Math.min(1, Math.max(0, next)));
  const keys: Record<string, number> = { ArrowLeft: at - STEP, ArrowRight: at + STEP, Home: 0, End: 1 };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(100 * at)}
      style={{
        position: 'absolute',
        top: 0,
        bottom: 0,
        left: `calc(${100 * at}% - 8px)`,
        width: 16,
        cursor: 'ew-resize',
        touchAction: 'none',
      }}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={(event) => {
        const stage = event.currentTarget.parentElement;
        if (event.buttons === 0 || !stage) return;
        const box = stage.getBoundingClientRect();
        put((event.clientX - box.left) / box.width);
      }}
      onKeyDown={(event: KeyboardEvent) => {
        if (!(event.key in keys)) return;
        event.preventDefault();
        event.stopPropagation();
        put(keys[event.key]);
      }}
    >
      <div
        style={{
          position: 'absolute',
          insetBlock: 0,
          left: 7,
          width: 2,
          background: '#fff',
          boxShadow: '0 0 0 1px #000',
        }}
      />
      <span style={{ ...splitLabel, right: 14 }}>{left}</span>
      <span style={{ ...splitLabel, left: 14 }}>{right}</span>
    </div>
  );
}
