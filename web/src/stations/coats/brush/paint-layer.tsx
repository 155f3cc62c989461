import type { PaintStroke } from '@zesty-tile/core';
import { useCallback, useLayoutEffect, useRef } from 'react';
import type { Size } from '../../../bench/floor/geometry.ts';
import { RING } from '../../../bench/floor/trace.ts';
import { type BrushPoint, fromHome, stageAt, useBrush } from '../../../bench/floor/use-brush.ts';
import { type Drawn, drawStroke, radiusOf, type Stage } from './draw-stroke.ts';
import { type CarriedChannel, fillOf, strokeOf, type Tip, useTip } from './tip.ts';

/** How strongly strokes show before the tile follows. */
const OPACITY = 0.85;
/** CSS pixels of the ring about a place that is to be filled. */
const FILL_RING = 4;

/** Over every tile: the lines that strokes are mirrored about, and the place they are turned about. */
function Axes({ tip: { mirror, turns, turnX, turnY }, plane, lay }: { tip: Tip } & Omit<Stage, 'wraps'>) {
  const lines: [number, number, number, number][] = [];
  for (let k = 0; k < lay; k++) {
    if (mirror === 'across' || mirror === 'both') lines.push([k + 0.5, 0, k + 0.5, lay]);
    if (mirror === 'down' || mirror === 'both') lines.push([0, k + 0.5, lay, k + 0.5]);
  }
  const places = Array.from({ length: turns > 1 ? lay * lay : 0 }, (_, k) =>
    stageAt(plane, (k % lay) + turnX, Math.floor(k / lay) + turnY),
  );
  // These lines stay where they are when half shift moves the tile.
  const still = { ...plane, halfShift: false };
  return (
    <>
      {lines.map(([u0, v0, u1, v1]) => {
        const [x1, y1] = stageAt(still, u0, v0);
        const [x2, y2] = stageAt(still, u1, v1);
        return RING.map((line) => (
          <line key={`${u0} ${v0} ${line.stroke}`} {...{ x1, y1, x2, y2 }} {...line} strokeDasharray="2 6" />
        ));
      })}
      {places.map(([cx, cy]) =>
        RING.map((line) => <circle key={`${cx} ${cy} ${line.stroke}`} cx={cx} cy={cy} r={4} {...line} />),
      )}
    </>
  );
}

interface PaintLayerProps extends Stage {
  stage: Size;
  /** Strokes that the tile does not show yet. */
  pending: readonly PaintStroke[];
  erase: boolean;
  carries: readonly CarriedChannel[];
  seed: number;
  onStroke(stroke: PaintStroke): void;
}

/**
 * Takes strokes over the Floor. A stroke is drawn as the pointer goes, piece by piece, so that its length costs nothing, and
 * lies over the tile until that shows it itself.
 */
export function PaintLayer({
  plane,
  stage,
  lay,
  wraps,
  pending,
  erase,
  carries,
  seed,
  onStroke,
}: PaintLayerProps) {
  const canvasRef = useRef<HTMLCanvasElement>(null);
  const aheadRef = useRef<HTMLCanvasElement>(null);
  const drawn = useRef<Drawn | undefined>(undefined);
  const { tip, fills } = useTip();
  const make = useCallback(
    (points: readonly BrushPoint[]) => strokeOf(fromHome(points), erase, seed, tip, carries),
    [erase, seed, tip, carries],
  );
  const { points, ahead, at, handlers } = useBrush(plane, {
    radius: tip.radius,
    begin: () => true,
    end: (whole) => onStroke(fills ? fillOf(fromHome(whole)[0], erase, tip, carries) : make(whole)),
    steady: { string: tip.string * tip.radius, smooth: tip.smooth },
  });
  const isDrawing = points !== null;
  useLayoutEffect(() => {
    const canvas = canvasRef.current;
    const context = canvas?.getContext('2d');
    // While a stroke is drawn nothing is taken away from under it.
    if (!canvas || !context || isDrawing) return;
    canvas.width = stage.width;
    canvas.height = stage.height;
    for (const stroke of pending) drawStroke(context, stroke, { plane, lay, wraps });
  }, [pending, plane, lay, wraps, stage, isDrawing]);
  useLayoutEffect(() => {
    const context = canvasRef.current?.getContext('2d');
    if (!context || !points || fills) {
      drawn.current = undefined;
      return;
    }
    drawn.current = drawStroke(context, make(points), { plane, lay, wraps }, drawn.current);
  }, [points, make, fills, plane, lay, wraps]);
  useLayoutEffect(() => {
    const canvas = aheadRef.current;
    const last = points?.at(-1);
    if (!canvas) return;
    const context = canvas.getContext('2d')!;
    context.clearRect(0, 0, canvas.width, canvas.height);
    // Single prints lie where the whole way says; they are not drawn ahead of it.
    if (!last || ahead.length === 0 || fills || tip.print !== 'band') return;
    drawStroke(context, make([last, ...ahead]), { plane, lay, wraps });
  }, [points, ahead, make, fills, tip.print, plane, lay, wraps]);
  const held = points?.at(-1) ?? at;
  const [x, y] = held ? stageAt(plane, held[0], held[1]) : [0, 0];
  return (
    <>
      <canvas
        ref={canvasRef}
        data-tint-layer="painted coat"
        style={{ position: 'absolute', inset: 0, cursor: 'none', touchAction: 'none', opacity: OPACITY }}
        {...handlers}
      />
      <canvas
        ref={aheadRef}
        width={stage.width}
        height={stage.height}
        style={{ position: 'absolute', inset: 0, pointerEvents: 'none', opacity: OPACITY }}
      />
      <svg
        aria-hidden="true"
        style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
        fill="none"
      >
        <Axes tip={tip} plane={plane} lay={lay} />
        {held &&
          RING.map((line) => (
            <circle
              key={line.stroke}
              cx={x}
              cy={y}
              r={fills ? FILL_RING : radiusOf(plane, tip.radius)}
              {...line}
            />
          ))}
      </svg>
    </>
  );
}
