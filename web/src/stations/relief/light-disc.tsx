import Box from '@mui/material/Box';
import type { ReliefDecision } from '@zesty-tile/core';
import type { KeyboardEvent, PointerEvent } from 'react';
import { useDials } from '../../bench/dials/use-dials.ts';
import { useBench } from '../../bench/state.ts';
import { GREY } from '../../theme.ts';

const RADIUS = 26;
const wrapped = (degrees: number) => ((Math.round(degrees) % 360) + 360) % 360;

/** Where slanting light comes from, dragged round the rim; what was found is marked. */
export function LightDisc() {
  const { heightFrom, secondFrom, lightFrom, lightDegrees } = useDials(
    'relief',
    'heightFrom',
    'secondFrom',
    'lightFrom',
    'lightDegrees',
  );
  const found = useBench(
    (s) => (s.recipe.decisions.relief?.data as ReliefDecision | undefined)?.light.degrees,
  );
  const reads = heightFrom === 'light' || heightFrom === 'both' || secondFrom === 'light';
  if (!reads) return null;
  const degrees = lightFrom === 'hand' ? lightDegrees : (found ?? lightDegrees);
  const put = (next: number) =>
    useBench
      .getState()
      .setDials('relief', { lightFrom: 'hand', lightDegrees: wrapped(next) }, 'relief light');
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
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5 }}>
      <div
        role="slider"
        tabIndex={0}
        aria-label="Where slanting light comes from"
        aria-valuenow={wrapped(degrees)}
        aria-valuemin={0}
        aria-valuemax={360}
        aria-valuetext={`${wrapped(degrees)} degrees from the top`}
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
          {found !== undefined && (
            <circle {...at(found, RADIUS)} r="3.5" fill="none" stroke={GREY.ink} strokeWidth="1.5" />
          )}
          <line x1="0" y1="0" x2={at(degrees, RADIUS).cx} y2={at(degrees, RADIUS).cy} stroke={GREY.ink} />
          <circle {...at(degrees, RADIUS - 4)} r="5" fill={GREY.ink} stroke="#fff" />
        </svg>
      </div>
      <span style={{ lineHeight: 1.35 }}>
        Light from {wrapped(degrees)}°, {lightFrom === 'hand' ? 'set by hand' : 'as found'}.
        <br />
        <span style={{ color: GREY.soft }}>Drag it; the ring is where it was found.</span>
      </span>
    </Box>
  );
}
