import type { KeyboardEvent } from 'react';
import { GREY } from '../../theme.ts';
import { useBefore } from './before.ts';

const STEP = 0.02;

const label = {
  position: 'absolute',
  top: 0,
  padding: '1px 7px',
  background: GREY.sheet,
  color: GREY.ink,
  fontSize: 12,
  whiteSpace: 'nowrap',
  borderRadius: 4,
} as const;

/** The line between before (left) and after (right); dragged, or moved by the arrow keys. */
export function Divider({ before, after }: { before: string; after: string }) {
  const divider = useBefore((s) => s.divider);
  if (divider === null) return null;
  const put = (at: number) => useBefore.setState({ divider: Math.min(1, Math.max(0, at)) });
  const keys: Record<string, number> = {
    ArrowLeft: divider - STEP,
    ArrowRight: divider + STEP,
    Home: 0,
    End: 1,
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Between before and after"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(100 * divider)}
      style={{
        position: 'absolute',
        top: 0,
        bottom: 0,
        left: `calc(${100 * divider}% - 8px)`,
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
      <span style={{ ...label, right: 14 }}>{before}</span>
      <span style={{ ...label, left: 14 }}>{after}</span>
    </div>
  );
}
