import type { KeyboardEvent, PointerEvent } from 'react';
import { GREY } from '../../theme.ts';
import type { Sun } from './state.ts';

const RADIUS = 17;
const LOWEST = 5;

const wrapped = (degrees: number) => ((degrees % 360) + 360) % 360;
const kept = (rise: number) => Math.min(90, Math.max(LOWEST, rise));

/** The sky seen from above: the middle is straight up, the rim is the horizon. */
export function SunDisc({ sun, onChange }: { sun: Sun; onChange(sun: Sun): void }) {
  const away = ((90 - sun.rise) / 90) * RADIUS;
  const turn = (sun.turn * Math.PI) / 180;
  const move = (event: PointerEvent<HTMLDivElement>) => {
    if (event.buttons === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    const dx = event.clientX - box.left - box.width / 2;
    const dy = event.clientY - box.top - box.height / 2;
    onChange({
      turn: wrapped((Math.atan2(dx, -dy) * 180) / Math.PI),
      rise: kept(90 - (Math.hypot(dx, dy) / RADIUS) * 90),
    });
  };
  const keys: Record<string, Sun> = {
    ArrowLeft: { ...sun, turn: wrapped(sun.turn - 5) },
    ArrowRight: { ...sun, turn: wrapped(sun.turn + 5) },
    ArrowUp: { ...sun, rise: kept(sun.rise + 5) },
    ArrowDown: { ...sun, rise: kept(sun.rise - 5) },
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Sun: left and right turn it, up and down raise it"
      aria-valuenow={Math.round(sun.turn)}
      aria-valuemin={0}
      aria-valuemax={360}
      aria-valuetext={`${Math.round(sun.turn)} degrees round, ${Math.round(sun.rise)} degrees high`}
      style={{ cursor: 'grab', touchAction: 'none', borderRadius: '50%', width: 40, height: 40 }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        move(event);
      }}
      onPointerMove={move}
      onKeyDown={(event: KeyboardEvent) => {
        const next = keys[event.key];
        if (!next) return;
        event.preventDefault();
        onChange(next);
      }}
    >
      <svg width="40" height="40" viewBox="-20 -20 40 40" aria-hidden="true">
        <circle r={RADIUS} fill={GREY.card} stroke={GREY.ink} />
        <circle r={RADIUS / 2} fill="none" stroke={GREY.line} />
        <circle cx={Math.sin(turn) * away} cy={-Math.cos(turn) * away} r="5" fill={GREY.ink} stroke="#fff" />
      </svg>
    </div>
  );
}
