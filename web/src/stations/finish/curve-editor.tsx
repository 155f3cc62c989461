import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { type Curve, curveAt, curveTable, roughnessBand, STRAIGHT } from '@zesty-tile/core';
import { useMemo, useRef } from 'react';
import { Section } from '../../bench/dials/section.tsx';
import { Handle } from '../../bench/floor/handle.tsx';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { FIGURES, GREY } from '../../theme.ts';

const WIDE = 268;
const HIGH = 132;
const PAD = 9;
const MOST = 12;
/** Points never come nearer to one another than this, so that the curve cannot fold. */
const APART = 0.02;
const STEP = 0.01;

const clamp = (value: number, low = 0, high = 1) => Math.min(high, Math.max(low, value));
const rounded = (value: number) => Math.round(1000 * value) / 1000;
const placeX = (x: number) => PAD + x * (WIDE - 2 * PAD);
const placeY = (y: number) => HIGH - PAD - y * (HIGH - 2 * PAD);

/** The tone curve of roughness: points are dragged, added by a press, removed by a key or a double press. */
export function CurveEditor() {
  const points = useBench((s) => s.recipe.stations.finish.points);
  const band = useBench((s) => roughnessBand(s.recipe.stations.finish).join(' – '));
  const grip = useRef<[number, number]>([0, 0]);
  const put = (next: Curve, gesture = '') =>
    useBench.getState().setDials('finish', { points: next }, gesture && `curve ${gesture}`);
  const path = useMemo(() => {
    const table = curveTable(points);
    const steps = Array.from({ length: 68 }, (_v, k) => k / 67);
    return steps.map((x) => `${placeX(x).toFixed(1)},${placeY(curveAt(table, x)).toFixed(1)}`).join(' ');
  }, [points]);
  const move = (k: number, x: number, y: number) => {
    const low = k > 0 ? points[k - 1][0] + APART : 0;
    const high = k < points.length - 1 ? points[k + 1][0] - APART : 1;
    put(
      points.map((point, at) => (at === k ? [rounded(clamp(x, low, high)), rounded(clamp(y))] : point)),
      String(k),
    );
  };
  const add = (x: number, y: number) => {
    if (points.length >= MOST || points.some(([at]) => Math.abs(at - x) < APART)) return;
    put([...points, [rounded(x), rounded(y)] as [number, number]].sort((a, b) => a[0] - b[0]));
  };
  const remove = (k: number) => {
    if (points.length > 2) put(points.filter((_point, at) => at !== k));
  };
  return (
    <Section station="finish" id="tone-curve" title="Tone curve">
      <Box sx={{ display: 'grid', gap: 0.5 }}>
        <Box sx={{ display: 'flex', alignItems: 'center' }}>
          <Button
            sx={pressable(false)}
            onClick={() => {
              const table = curveTable(points);
              // Into the widest gap, on the curve itself.
              const gaps = points.slice(1).map(([x], k) => [x - points[k][0], (x + points[k][0]) / 2]);
              const [, x] = gaps.reduce((a, b) => (b[0] > a[0] ? b : a));
              add(x, curveAt(table, x));
            }}
            disabled={points.length >= MOST}
          >
            Add a point
          </Button>
          <Button
            sx={{ ...pressable(false), ml: 0.5 }}
            disabled={points.length === 2 && path.length > 0 && String(points) === String(STRAIGHT)}
            onClick={() => put(STRAIGHT)}
          >
            Straight
          </Button>
        </Box>
        {/* biome-ignore lint/a11y/useSemanticElements: a fieldset cannot stand in a drawing */}
        <svg
          width={WIDE}
          height={HIGH}
          role="group"
          aria-label="Points of the tone curve"
          style={{
            background: GREY.card,
            border: `1px solid ${GREY.line}`,
            borderRadius: 4,
            touchAction: 'none',
          }}
          onDoubleClick={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            const x = clamp((event.clientX - box.left - PAD) / (WIDE - 2 * PAD));
            const y = clamp((HIGH - PAD - (event.clientY - box.top)) / (HIGH - 2 * PAD));
            const near = points.findIndex(
              ([px, py]) => Math.hypot(placeX(px) - placeX(x), placeY(py) - placeY(y)) < 12,
            );
            if (near >= 0) remove(near);
            else add(x, y);
          }}
        >
          {[0.25, 0.5, 0.75].map((t) => (
            <g key={t} stroke={GREY.line}>
              <line x1={placeX(t)} x2={placeX(t)} y1={PAD} y2={HIGH - PAD} />
              <line x1={PAD} x2={WIDE - PAD} y1={placeY(t)} y2={placeY(t)} />
            </g>
          ))}
          <polyline points={path} fill="none" stroke={GREY.ink} strokeWidth="2" />
          {points.map(([x, y], k) => (
            <Handle
              // biome-ignore lint/suspicious/noArrayIndexKey: points have no identity but their place
              key={k}
              x={placeX(x)}
              y={placeY(y)}
              radius={6}
              name={`Point ${k + 1}`}
              now={Math.round(100 * y)}
              words={`${x.toFixed(2)} to ${y.toFixed(2)}`}
              onGrip={() => {
                grip.current = [x, y];
              }}
              onDrag={(dx, dy) =>
                move(k, grip.current[0] + dx / (WIDE - 2 * PAD), grip.current[1] - dy / (HIGH - 2 * PAD))
              }
              onStep={(dx, dy) => move(k, x + dx * STEP, y - dy * STEP)}
              onDelete={() => remove(k)}
            />
          ))}
        </svg>
        <span style={{ color: GREY.soft, fontSize: 12, lineHeight: 1.3 }}>
          X: combined input, smooth to rough. Y: roughness within the band{' '}
          <span style={{ fontFamily: FIGURES }}>{band}</span>. Double-click adds or removes a point.
        </span>
      </Box>
    </Section>
  );
}
