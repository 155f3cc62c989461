import { type Reading, srgbCode } from '@zesty-tile/core';
import { useEffect, useRef } from 'react';
import type { Size } from '../../bench/floor/geometry.ts';
import { Handle } from '../../bench/floor/handle.tsx';
import { type BrushPlane, longerEdge, stageAt } from '../../bench/floor/use-brush.ts';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import { setReadings, useGauge } from './use-gauge.ts';

const SWATCH = 46;
/** So many px a key moves a reading. */
const STEP = 1;

/** Asks what stands at the readings, whenever one moves or the tile changes. */
export function useReadings(): void {
  const readings = useBench((s) => s.recipe.stations.gauge.readings);
  const found = useBench((s) => s.found);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new pass is read again
  useEffect(() => {
    let late = false;
    void engineNow()
      ?.readAt(readings)
      .then((values) => {
        if (!late && values) useGauge.setState({ values });
      });
    return () => {
      late = true;
    };
  }, [readings, found]);
}

const grey = (y: number) => {
  const code = srgbCode(y);
  return `rgb(${code} ${code} ${code})`;
};

/** Over the albedo: readings to be dragged, each with the grey that is held beside it. */
export function ReadingLayer({ plane, stage, lay }: { plane: BrushPlane; stage: Size; lay: number }) {
  const readings = useBench((s) => s.recipe.stations.gauge.readings);
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  const values = useGauge((s) => s.values);
  const grip = useRef({ x: 0, y: 0 });
  const put = (k: number, next: Partial<Reading>) =>
    setReadings(
      readings.map((one, at) => (at === k ? { ...one, ...next } : one)),
      `reading ${k}`,
    );
  const edgeY = (plane.look.edge * plane.tile.height) / plane.tile.width;
  const rounded = (value: number) => Math.round(1e4 * value) / 1e4;
  const move = (k: number, from: { x: number; y: number }, dx: number, dy: number) =>
    put(k, { x: rounded(from.x + dx / plane.look.edge), y: rounded(from.y + dy / edgeY) });
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot stand in a drawing
    <svg
      width={stage.width}
      height={stage.height}
      style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}
      role="group"
      aria-label="Readings"
    >
      {readings.map((reading, k) => {
        // A reading outside the first tile is shown where the tile goes on, as long as that is laid.
        const inside = (value: number) => (lay > 1 ? value : value - Math.floor(value));
        const [x, y] = stageAt(plane, inside(reading.x), inside(reading.y));
        const radius = (reading.mm / 2000 / edgeMetres) * longerEdge(plane);
        const read = values[k];
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: readings have no identity but their place
          <g key={k}>
            {reading.grey !== null && (
              <rect
                x={x + Math.max(12, radius + 6)}
                y={y - SWATCH / 2}
                width={SWATCH}
                height={SWATCH}
                fill={grey(reading.grey)}
                data-grey={reading.grey}
              />
            )}
            {radius > 4 && (
              <>
                <circle
                  cx={x}
                  cy={y}
                  r={radius}
                  fill="none"
                  stroke="#000"
                  strokeOpacity="0.55"
                  strokeWidth="3"
                />
                <circle cx={x} cy={y} r={radius} fill="none" stroke="#fff" strokeWidth="1.25" />
              </>
            )}
            <Handle
              x={x}
              y={y}
              radius={9}
              name={`Reading ${k + 1}`}
              now={k + 1}
              words={read ? `Y ${read.y.toFixed(3)}` : 'being read'}
              onGrip={() => {
                grip.current = { x: reading.x, y: reading.y };
                useGauge.setState({ chosen: k });
              }}
              onDrag={(dx, dy) => move(k, grip.current, dx, dy)}
              onStep={(dx, dy) => move(k, reading, dx * STEP, dy * STEP)}
            />
            <text
              x={x}
              y={y + 4}
              textAnchor="middle"
              fontSize="11"
              fontWeight="700"
              fill="#1d1d1d"
              style={{ pointerEvents: 'none' }}
            >
              {k + 1}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
