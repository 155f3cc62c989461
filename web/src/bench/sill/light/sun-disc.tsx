import type { KeyboardEvent, PointerEvent } from 'react';
import { GREY } from '../../../theme.ts';
import { useSill } from '../state.ts';
import type { Sun } from './rig.ts';

const RADIUS = 17;
const LOWEST = 5;

const wrapped = (degrees: number) => ((degrees % 360) + 360) % 360;
const kept = (rise: number) => Math.min(90, Math.max(LOWEST, rise));

/** Where a light lies on the disc. */
function spotOf({ turn, rise }: Sun): { cx: number; cy: number } {
  const away = ((90 - rise) / 90) * RADIUS;
  const angle = (turn * Math.PI) / 180;
  return { cx: Math.sin(angle) * away, cy: -Math.cos(angle) * away };
}

/** The light that the disc moves, and how it is moved. */
export function useChosenLight(): { name: string; light: Sun; put(next: Sun): void } {
  const { sun, lamps, chosenLight } = useSill();
  const lamp = chosenLight === 'sun' ? undefined : lamps[chosenLight];
  if (!lamp || chosenLight === 'sun')
    return { name: 'Sun', light: sun, put: (next) => useSill.setState({ sun: next }) };
  return {
    name: `Light ${chosenLight + 1}`,
    light: lamp,
    put: (next) =>
      useSill.setState({ lamps: lamps.map((one, k) => (k === chosenLight ? { ...one, ...next } : one)) }),
  };
}

/** The sky seen from above: the middle is straight up, the rim is the horizon. */
export function SunDisc() {
  const { sun, lamps, chosenLight } = useSill();
  const { name, light, put } = useChosenLight();
  const move = (event: PointerEvent<HTMLDivElement>) => {
    if (event.buttons === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    const dx = event.clientX - box.left - box.width / 2;
    const dy = event.clientY - box.top - box.height / 2;
    put({
      turn: wrapped((Math.atan2(dx, -dy) * 180) / Math.PI),
      rise: kept(90 - (Math.hypot(dx, dy) / RADIUS) * 90),
    });
  };
  const { turn, rise } = light;
  const keys: Record<string, Sun> = {
    ArrowLeft: { turn: wrapped(turn - 5), rise },
    ArrowRight: { turn: wrapped(turn + 5), rise },
    ArrowUp: { turn, rise: kept(rise + 5) },
    ArrowDown: { turn, rise: kept(rise - 5) },
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={`${name}: left and right turn it, up and down raise it`}
      aria-valuenow={Math.round(turn)}
      aria-valuemin={0}
      aria-valuemax={360}
      aria-valuetext={`${Math.round(turn)} degrees round, ${Math.round(rise)} degrees high`}
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
        put(next);
      }}
    >
      <svg width="40" height="40" viewBox="-20 -20 40 40" aria-hidden="true">
        <circle r={RADIUS} fill={GREY.card} stroke={GREY.ink} />
        <circle r={RADIUS / 2} fill="none" stroke={GREY.line} />
        {lamps.map((lamp, k) => (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: lamps have no name but their place
            key={k}
            {...spotOf(lamp)}
            r={chosenLight === k ? 5 : 3.5}
            fill={lamp.colour}
            stroke={GREY.ink}
          />
        ))}
        <circle {...spotOf(sun)} r={chosenLight === 'sun' ? 5 : 3.5} fill={GREY.ink} stroke="#fff" />
      </svg>
    </div>
  );
}
