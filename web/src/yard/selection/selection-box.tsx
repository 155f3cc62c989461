import Box from '@mui/material/Box';
import { type PointerEvent, useRef, useState } from 'react';
import { GREY } from '../../theme.ts';

interface Rect {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** The pointer must move so many pixels before it draws a box. */
const LEAST = 6;

const rectOf = (a: { x: number; y: number }, b: { x: number; y: number }): Rect => ({
  left: Math.min(a.x, b.x),
  right: Math.max(a.x, b.x),
  top: Math.min(a.y, b.y),
  bottom: Math.max(a.y, b.y),
});

/** Ids of the tiles in sight that a box touches. */
const touchedBy = (rect: Rect, within: HTMLElement): string[] =>
  [...within.querySelectorAll<HTMLElement>('[data-tile-id]')]
    .filter((card) => {
      const { left, right, top, bottom } = card.getBoundingClientRect();
      return left < rect.right && right > rect.left && top < rect.bottom && bottom > rect.top;
    })
    .map((card) => card.dataset.tileId!);

/** Draws a box from the space between tiles and selects what it touches. */
export function useSelectionBox(onBox: (ids: string[]) => void) {
  const from = useRef<{ x: number; y: number } | null>(null);
  const [rect, setRect] = useState<Rect | null>(null);
  const handlers = {
    onPointerDown(event: PointerEvent<HTMLElement>) {
      if (event.button !== 0 || (event.target as HTMLElement).closest('button, a, input, [role="dialog"]'))
        return;
      from.current = { x: event.clientX, y: event.clientY };
    },
    onPointerMove(event: PointerEvent<HTMLElement>) {
      if (!from.current) return;
      const next = rectOf(from.current, { x: event.clientX, y: event.clientY });
      if (!rect && Math.hypot(next.right - next.left, next.bottom - next.top) < LEAST) return;
      if (!rect) event.currentTarget.setPointerCapture(event.pointerId);
      setRect(next);
      onBox(touchedBy(next, event.currentTarget));
    },
    onPointerUp() {
      from.current = null;
      setRect(null);
    },
  };
  const box = rect && (
    <Box
      aria-hidden="true"
      data-testid="selection-box"
      sx={{
        position: 'fixed',
        zIndex: 2,
        pointerEvents: 'none',
        border: `1px solid ${GREY.ink}`,
        bgcolor: 'color-mix(in srgb, currentColor 10%, transparent)',
      }}
      style={{
        left: rect.left,
        top: rect.top,
        width: rect.right - rect.left,
        height: rect.bottom - rect.top,
      }}
    />
  );
  return { handlers, box };
}
