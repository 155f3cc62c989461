import { type Steadying, type Stroke, steadier, thinned } from '@zesty-tile/core';
import { type PointerEvent, useRef, useState } from 'react';
import type { Look, Size } from './geometry.ts';

/** A place in shares of the tile, not wrapped, with the pressure of a pen where there is one, and where it leans. */
export type BrushPoint = Stroke['points'][number];

export interface BrushPlane {
  look: Look;
  tile: Size;
  halfShift: boolean;
}

/** CSS pixels of the tile's longer edge, by which radii are measured. */
export const longerEdge = ({ look, tile }: BrushPlane): number =>
  look.edge * Math.max(1, tile.height / tile.width);

/** The share of the tile under a point of the stage, not wrapped. */
export function shareAt({ look, tile, halfShift }: BrushPlane, x: number, y: number): [number, number] {
  const shift = halfShift ? 0.5 : 0;
  const edgeY = (look.edge * tile.height) / tile.width;
  return [(x - look.x) / look.edge + shift, (y - look.y) / edgeY + shift];
}

/** Where a share of the tile lies on the stage. */
export function stageAt({ look, tile, halfShift }: BrushPlane, u: number, v: number): [number, number] {
  const shift = halfShift ? 0.5 : 0;
  const edgeY = (look.edge * tile.height) / tile.width;
  return [look.x + (u - shift) * look.edge, look.y + (v - shift) * edgeY];
}

/** A stroke moved by whole tiles, so that it begins in the first. */
export function fromHome(points: readonly BrushPoint[]): BrushPoint[] {
  const [left, top] = [Math.floor(points[0][0]), Math.floor(points[0][1])];
  return points.map(([u, v, ...pressure]) => [u - left, v - top, ...pressure]) as BrushPoint[];
}

/** A place moved by whole tiles, so that it is the nearest to another. */
const nearestImage = ([u, v, ...pressure]: BrushPoint, [x, y]: BrushPoint): BrushPoint =>
  [u + Math.round(x - u), v + Math.round(y - v), ...pressure] as BrushPoint;

type PenEvent = Pick<
  globalThis.PointerEvent,
  'clientX' | 'clientY' | 'pointerType' | 'pressure' | 'tiltX' | 'tiltY'
>;

/** A pen held more upright than this, in degrees, leans nowhere. */
const UPRIGHT = 8;

/** The direction a pen leans in, in degrees clockwise from up; null where it is held upright. */
export function leanOf({ tiltX, tiltY }: Pick<PenEvent, 'tiltX' | 'tiltY'>): number | null {
  if (Math.hypot(tiltX, tiltY) < UPRIGHT) return null;
  const [across, down] = [tiltX, tiltY].map((tilt) => Math.tan((tilt * Math.PI) / 180));
  return Math.round((Math.atan2(across, -down) * 180) / Math.PI);
}

const rounded = (value: number) => Math.round(1e5 * value) / 1e5;

/** Steps shorter than this share of the radius are left out. */
const STEP = 0.12;

interface Brush {
  radius: number;
  /** Whether a stroke begins where the pointer was pressed; `isTurned` with Ctrl or ⌘ held. */
  begin(at: [number, number], isTurned: boolean): boolean;
  end(points: BrushPoint[]): void;
  /** How the hand is steadied, lengths in shares of the tile. */
  steady?: Steadying;
}

/** A hand that is not steadied. */
const FREE: Steadying = { string: 0, smooth: 0 };

/** Follows the pointer over the Floor and gathers strokes, with all the places a pen was at between two frames; with Shift held a line leads there from the end of the stroke before. */
export function useBrush(plane: BrushPlane, { radius, begin, end, steady = FREE }: Brush) {
  const [points, setPoints] = useState<BrushPoint[] | null>(null);
  const [ahead, setAhead] = useState<BrushPoint[]>([]);
  const [at, setAt] = useState<[number, number] | null>(null);
  const gathered = useRef<BrushPoint[] | null>(null);
  const last = useRef<BrushPoint | null>(null);
  const lead = useRef(steadier(steady));
  const pointOf = (event: PenEvent, box: DOMRect) => {
    const [u, v] = shareAt(plane, event.clientX - box.left, event.clientY - box.top);
    if (event.pointerType !== 'pen') return [rounded(u), rounded(v)] as BrushPoint;
    const lean = leanOf(event);
    const pressure = Math.round(100 * event.pressure) / 100;
    return [rounded(u), rounded(v), pressure, ...(lean === null ? [] : [lean])] as BrushPoint;
  };
  const handlers = {
    onPointerDown(event: PointerEvent<Element>) {
      if (event.button !== 0) return;
      event.stopPropagation();
      const box = event.currentTarget.getBoundingClientRect();
      const point = pointOf(event, box);
      if (!begin([point[0], point[1]], event.ctrlKey || event.metaKey)) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      lead.current = steadier(steady);
      lead.current([point[0], point[1]], event.timeStamp);
      const from = event.shiftKey ? last.current : null;
      gathered.current = from ? [nearestImage(from, point), point] : [point];
      setPoints(gathered.current);
    },
    onPointerMove(event: PointerEvent<Element>) {
      const box = event.currentTarget.getBoundingClientRect();
      setAt(shareAt(plane, event.clientX - box.left, event.clientY - box.top));
      const sofar = gathered.current;
      if (!sofar) return;
      const events = event.nativeEvent.getCoalescedEvents?.() ?? [];
      for (const one of events.length > 0 ? events : [event.nativeEvent]) {
        const [u, v, ...pressure] = pointOf(one, box);
        const point = [...lead.current([u, v], one.timeStamp).map(rounded), ...pressure] as BrushPoint;
        const last = sofar[sofar.length - 1];
        if (Math.hypot(point[0] - last[0], point[1] - last[1]) >= STEP * radius) sofar.push(point);
      }
      setPoints([...sofar]);
      // Where the pointer will be when the frame is seen; a steadied brush lies behind it anyway.
      const isFree = steady.string === 0 && steady.smooth === 0;
      const predicted = isFree ? (event.nativeEvent.getPredictedEvents?.() ?? []) : [];
      setAhead(predicted.map((one) => pointOf(one, box)));
    },
    onPointerUp() {
      const stroke = gathered.current;
      gathered.current = null;
      setPoints(null);
      setAhead([]);
      if (!stroke) return;
      last.current = stroke[stroke.length - 1];
      end(thinned(stroke));
    },
    onPointerLeave() {
      if (!gathered.current) setAt(null);
    },
  };
  return { points, ahead, at, handlers };
}
