import type { FarLook } from '@zesty-tile/core';
import { useEffect, useRef, useState } from 'react';
import type { Size } from '../../bench/floor/geometry.ts';
import { type FarView, useSight } from '../../bench/floor/sight.ts';
import { engineNow } from '../../bench/use-engine.ts';
import type { ShownView } from '../../engine/protocol.ts';
import { VIEW_WORDS } from '../../engine/views.ts';
import { GREY } from '../../theme.ts';

/** Repeats across, seen from above. */
const ABOVE = 24;
/** Height of the eye over the ground in tile edges, and how far it looks down. */
const EYE = 1.4;
const DOWN = 14;
/** Tile edges that a drag over the whole stage moves. */
const DRAGGED = 4;

const lookOf = (view: FarView): FarLook['from'] =>
  view === 'above' ? { above: ABOVE } : { eye: EYE, downDegrees: DOWN };

/** In place of the laid tiles: a field of repeats as a game draws it from far away. Dragged, it moves and may shimmer. */
export function FarLayer({ shown, stage, view }: { shown: ShownView; stage: Size; view: FarView }) {
  const filter = useSight((s) => s.filter);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [moved, setMoved] = useState<[number, number]>([0, 0]);
  const [ready, setReady] = useState('');
  const drag = useRef<{ x: number; y: number; moved: [number, number] } | null>(null);
  // The newest wish is drawn when the one before is; those between are left out.
  const wish = useRef<(() => Promise<void>) | null>(null);
  const isBusy = useRef(false);
  const key = `${view} ${filter}`;
  useEffect(() => {
    const [width, height] = [stage.width, stage.height].map((side) =>
      Math.max(1, Math.round(side * Math.min(1.5, devicePixelRatio))),
    );
    let isOver = false;
    wish.current = async () => {
      const look = { width, height, from: lookOf(view), moved, filter };
      const picture = await engineNow()?.far(shown.view, look);
      const context = canvas.current?.getContext('2d');
      if (!picture || !context || isOver) return;
      context.canvas.width = picture.width;
      context.canvas.height = picture.height;
      context.putImageData(new ImageData(picture.rgba, picture.width, picture.height), 0, 0);
      setReady(key);
    };
    const work = async () => {
      isBusy.current = true;
      while (wish.current) {
        const now = wish.current;
        wish.current = null;
        await now();
      }
      isBusy.current = false;
    };
    if (!isBusy.current) void work();
    return () => {
      isOver = true;
    };
  }, [shown, stage, view, filter, moved, key]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={`${VIEW_WORDS[shown.view]} on a far field, ${view === 'above' ? `${ABOVE} repeats across` : 'seen along the ground'}`}
      data-far={ready}
      style={{
        position: 'absolute',
        inset: 0,
        width: '100%',
        height: '100%',
        background: `linear-gradient(${GREY.stage}, color-mix(in srgb, ${GREY.stage}, white 45%) 24%)`,
        cursor: 'grab',
        touchAction: 'none',
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { x: event.clientX, y: event.clientY, moved };
      }}
      onPointerMove={(event) => {
        const from = drag.current;
        if (!from) return;
        const scale = (view === 'above' ? ABOVE : DRAGGED) / stage.width;
        setMoved([
          from.moved[0] - (event.clientX - from.x) * scale,
          from.moved[1] + (event.clientY - from.y) * scale,
        ]);
      }}
      onPointerUp={() => {
        drag.current = null;
      }}
    />
  );
}
