import type { KeyboardEvent, PointerEvent, ReactNode } from 'react';
import { GREY } from '../../theme.ts';

const RADIUS = 17;
const LOWEST = 5;

/** Where light comes from: clockwise from the top, and its height, in degrees. */
export interface SkyPlace {
  turn: number;
  rise: number;
}

const wrapped = (degrees: number) => ((degrees % 360) + 360) % 360;
const kept = (rise: number) => Math.min(90, Math.max(LOWEST, rise));

/** Where a light lies on the disc. */
export function spotOf({ turn, rise }: SkyPlace): { cx: number; cy: number } {
  const away = ((90 - rise) / 90) * RADIUS;
  const angle = (turn * Math.PI) / 180;
  return { cx: Math.sin(angle) * away, cy: -Math.cos(angle) * away };
}

interface SkyDiscProps {
  label: string;
  /** The light that is moved; null where it has no place yet. */
  light: SkyPlace | null;
  /** Left out where it is only shown. */
  onMove?(next: SkyPlace): void;
  /** The lights, as circles about the middle. */
  children: ReactNode;
}

const wordsOf = (light: SkyPlace | null): string =>
  light ? `${Math.round(light.turn)} degrees round, ${Math.round(light.rise)} degrees high` : 'not set';

/** The sky seen from above: the middle is straight up, the rim is the horizon. */
export function SkyDisc({ label, light, onMove, children }: SkyDiscProps) {
  const drawing = (
    <svg width="40" height="40" viewBox="-20 -20 40 40" aria-hidden="true">
      <circle r={RADIUS} fill={GREY.card} stroke={GREY.ink} />
      <circle r={RADIUS / 2} fill="none" stroke={GREY.line} />
      {children}
    </svg>
  );
  if (!onMove) {
    return (
      <div role="img" aria-label={`${label}: ${wordsOf(light)}`} style={{ width: 40, height: 40 }}>
        {drawing}
      </div>
    );
  }
  const move = (event: PointerEvent<HTMLDivElement>) => {
    if (event.buttons === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    const dx = event.clientX - box.left - box.width / 2;
    const dy = event.clientY - box.top - box.height / 2;
    onMove({
      turn: wrapped((Math.atan2(dx, -dy) * 180) / Math.PI),
      rise: kept(90 - (Math.hypot(dx, dy) / RADIUS) * 90),
    });
  };
  const { turn, rise } = light ?? { turn: 0, rise: 45 };
  const keys: Record<string, SkyPlace> = {
    ArrowLeft: { turn: wrapped(turn - 5), rise },
    ArrowRight: { turn: wrapped(turn + 5), rise },
    ArrowUp: { turn, rise: kept(rise + 5) },
    ArrowDown: { turn, rise: kept(rise - 5) },
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={Math.round(turn)}
      aria-valuemin={0}
      aria-valuemax={360}
      aria-valuetext={wordsOf(light)}
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
        onMove(next);
      }}
    >
      {drawing}
    </div>
  );
}
