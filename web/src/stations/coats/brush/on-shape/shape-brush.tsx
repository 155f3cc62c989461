import Box from '@mui/material/Box';
import { type PaintStroke, radiusShare } from '@zesty-tile/core';
import { type RefObject, useEffect, useRef, useState } from 'react';
import { RING } from '../../../../bench/floor/trace.ts';
import { fromHome, leanOf } from '../../../../bench/floor/use-brush.ts';
import { useSill } from '../../../../bench/sill/state.ts';
import { type LitSurface, litSurface, useDrawn, type Vector } from '../../../../bench/sill/under-pointer.ts';
import { useBench } from '../../../../bench/state.ts';
import { CARD } from '../../../../theme.ts';
import { addStroke, type Owner, useCoats } from '../../use-coats.ts';
import { type DrawnStamp, previewColour, stampFor } from '../draw-stroke.ts';
import { type CarriedChannel, fillOf, strokeOf, type Tip, useCarried, useTip } from '../tip.ts';
import {
  type FollowedHit,
  type PointerPlace,
  ringOf,
  type ShapeStroke,
  seenSquare,
  shapeStroke,
} from './shape-stroke.ts';

/** How strongly strokes show before the tile follows. */
const OPACITY = 0.85;

/** What of the brush a press needs, always as it is now. */
interface Hand {
  tip: Tip;
  fills: boolean;
  erase: boolean;
  carries: readonly CarriedChannel[];
  seed: number;
  onStroke(stroke: PaintStroke): void;
}

type Ring = [number, number][];

const asPath = (ring: Ring) => ring.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ');

function drawDab(context: CanvasRenderingContext2D, ring: Ring): void {
  context.beginPath();
  for (const [x, y] of ring) context.lineTo(x, y);
  context.closePath();
  context.fill();
}

const minus = (a: Vector, b: Vector) => a.map((value, k) => value - b[k]) as unknown as Vector;

/** Turned so between prints whose way is drawn at random; which it will be is known only once the stroke is whole. */
const GOLDEN_ANGLE = 137.5;

/** Draws hits of a stroke as they come: as a band, or as single prints one spacing apart. */
function dabs(
  context: CanvasRenderingContext2D,
  surface: LitSurface,
  tip: Tip,
  stamp: DrawnStamp | null,
): (hits: readonly FollowedHit[]) => void {
  const apart = tip.print === 'band' ? 0 : 2 * tip.spacing * tip.radius * surface.edge;
  let printed: Vector | null = null;
  let count = 0;
  const print = ({ hit, pressure, lean }: FollowedHit, way: Vector | null) => {
    const radius = tip.radius * surface.edge * radiusShare(pressure);
    count++;
    if (!stamp) {
      drawDab(context, ringOf(surface, hit, radius));
      return;
    }
    const direction = { fixed: hit.up, along: way ?? hit.up, random: hit.up, pen: lean ?? hit.up }[
      tip.turning
    ];
    const degrees = tip.degrees + (tip.turning === 'random' ? GOLDEN_ANGLE * count : 0);
    context.setTransform(...seenSquare(surface, hit, direction, { radius, degrees }));
    context.drawImage(stamp.canvas, -stamp.reach, -stamp.reach, 2 * stamp.reach, 2 * stamp.reach);
    context.resetTransform();
  };
  /** Which way the first print points along a stroke is known from the next place on. */
  let first: FollowedHit | null = null;
  return (hits) => {
    for (const one of hits) {
      const { at } = one.hit;
      const way = printed && minus(at, printed);
      if (first && way) {
        print(first, way);
        first = null;
      }
      if (way && Math.hypot(...way) < apart) continue;
      printed = at;
      if (way || tip.turning !== 'along' || !stamp) print(one, way);
      else first = one;
    }
  };
}

/** Takes strokes over what the Sill shows: presses on the shape paint, all others go on to the view, which they turn. */
function useShapeBrush(layer: RefObject<HTMLDivElement | null>, now: Hand) {
  const [ring, setRing] = useState<Ring | null>(null);
  const canvasRef = useRef<HTMLCanvasElement>(null);
  const isDrawing = useRef(false);
  const hand = useRef(now);
  hand.current = now;
  useEffect(() => {
    const view = layer.current?.parentElement;
    const canvas = canvasRef.current;
    if (!view || !canvas) return;
    const context = canvas.getContext('2d')!;
    let stroke: ShapeStroke | null = null;
    let surface: LitSurface | null = null;
    let last: PointerPlace | null = null;
    let drawHits: ReturnType<typeof dabs> = () => {};
    const placeOf = (event: PointerEvent): PointerPlace => {
      const box = view.getBoundingClientRect();
      const [pressure, lean] = event.pointerType === 'pen' ? [event.pressure, leanOf(event)] : [1, null];
      return { x: event.clientX - box.left, y: event.clientY - box.top, pressure, lean, ms: event.timeStamp };
    };
    const onDown = (event: PointerEvent) => {
      if (event.button !== 0 || !(event.target instanceof HTMLCanvasElement)) return;
      const { tip, fills, erase, carries, seed, onStroke } = hand.current;
      surface = litSurface();
      const place = placeOf(event);
      const hit = surface?.hitAt(place.x, place.y);
      if (!surface || !hit) return;
      event.stopPropagation();
      event.preventDefault();
      if (fills) {
        onStroke(fillOf(fromHome([hit.place])[0], erase, tip, carries));
        return;
      }
      view.setPointerCapture(event.pointerId);
      if (canvas.width !== view.clientWidth || canvas.height !== view.clientHeight) {
        canvas.width = view.clientWidth;
        canvas.height = view.clientHeight;
      }
      const colour = previewColour(erase, carries.includes('colour') ? tip.colour : undefined);
      context.fillStyle = colour;
      isDrawing.current = true;
      const from = event.shiftKey ? last : null;
      stroke = shapeStroke(surface, { hit, place, from }, tip, view.clientHeight);
      const { prints } = strokeOf([[0, 0]], erase, seed, tip, carries);
      drawHits = dabs(context, surface, tip, prints ? stampFor(prints, colour) : null);
      drawHits(stroke.follow(place));
    };
    const onMove = (event: PointerEvent) => {
      const place = placeOf(event);
      if (stroke && surface) {
        event.stopPropagation();
        const events = event.getCoalescedEvents?.() ?? [];
        for (const one of events.length > 0 ? events : [event]) drawHits(stroke.follow(placeOf(one)));
      }
      const shown = stroke ? surface : event.buttons === 0 ? litSurface() : null;
      const hit = shown?.hitAt(place.x, place.y);
      setRing(shown && hit ? ringOf(shown, hit, hand.current.tip.radius * shown.edge) : null);
    };
    const onUp = (event: PointerEvent) => {
      if (!stroke) return;
      event.stopPropagation();
      const { erase, seed, tip, carries, onStroke } = hand.current;
      last = stroke.end();
      const made = stroke.whole(erase, seed, tip, carries);
      stroke = null;
      isDrawing.current = false;
      if (made) onStroke(made);
    };
    const onLeave = () => {
      if (!stroke) setRing(null);
    };
    view.addEventListener('pointerdown', onDown, true);
    view.addEventListener('pointermove', onMove, true);
    view.addEventListener('pointerup', onUp, true);
    view.addEventListener('pointercancel', onUp, true);
    view.addEventListener('pointerleave', onLeave);
    return () => {
      view.removeEventListener('pointerdown', onDown, true);
      view.removeEventListener('pointermove', onMove, true);
      view.removeEventListener('pointerup', onUp, true);
      view.removeEventListener('pointercancel', onUp, true);
      view.removeEventListener('pointerleave', onLeave);
    };
  }, [layer]);
  const maps = useDrawn((s) => s.maps);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was drawn is on the shape when its maps change
  useEffect(() => {
    const canvas = canvasRef.current;
    if (canvas && !isDrawing.current) canvas.getContext('2d')!.clearRect(0, 0, canvas.width, canvas.height);
  }, [maps]);
  return { canvasRef, ring };
}

/** Why nothing can be painted here as the Sill is set. */
function useObstacle(): string | null {
  const { show, beside, triplanar } = useSill();
  if (show === 'eye') return 'beside grey steps';
  if (beside) return 'while two are compared';
  return triplanar ? 'while the tile is projected along three axes' : null;
}

function Brush({ owner, strokes }: { owner: Owner; strokes: readonly PaintStroke[] }) {
  const layer = useRef<HTMLDivElement>(null);
  const { part, erase } = useCoats((s) => s.brush!);
  const { tip, fills } = useTip();
  const carries = useCarried(owner, part);
  const obstacle = useObstacle();
  const { canvasRef, ring } = useShapeBrush(layer, {
    tip,
    fills,
    erase,
    carries,
    seed: strokes.length + 1,
    onStroke: (stroke) => addStroke(owner, stroke),
  });
  return (
    <div ref={layer} style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}>
      <canvas
        ref={canvasRef}
        data-tint-layer="painted shape"
        style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', opacity: OPACITY }}
      />
      <svg
        aria-hidden="true"
        style={{ position: 'absolute', inset: 0, width: '100%', height: '100%' }}
        fill="none"
      >
        {ring && RING.map((line) => <polygon key={line.stroke} points={asPath(ring)} {...line} />)}
      </svg>
      <Box
        data-testid="shape-brush"
        sx={{
          ...CARD,
          position: 'absolute',
          left: 0,
          bottom: 0,
          px: 1,
          py: 0.25,
          fontSize: 12,
          lineHeight: 1.35,
        }}
      >
        {obstacle
          ? `No painting on the shape ${obstacle}.`
          : 'Drag on the shape to paint, beside it to turn it.'}
      </Box>
    </div>
  );
}

/** Takes strokes on the lit shape while the brush is selected for a painted part. */
export function ShapeBrush() {
  const open = useCoats((s) => s.open);
  const at = useCoats((s) => s.brush?.part);
  const { stack, groups } = useBench((s) => s.recipe.stations.coats);
  const coat = stack.find(({ id }) => id === open);
  const owned = coat ?? groups.find(({ id }) => id === open);
  const part = at === undefined ? undefined : owned?.parts[at];
  if (!owned || part?.by !== 'strokes') return null;
  return <Brush owner={{ kind: coat ? 'coat' : 'group', id: owned.id }} strokes={part.strokes} />;
}
