import { type PointerEvent, type RefObject, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useSteady } from '../dials/use-steady.ts';
import { fitLook, type Look, pixelLook, type Size, zoomAt } from './geometry.ts';

interface Looked {
  stageRef: RefObject<HTMLElement | null>;
  canvasRef: RefObject<HTMLCanvasElement | null>;
  /** Sides of the Floor. */
  stage: Size;
  /** Sides of the picture that is repeated. */
  tile: Size;
  repeats: number;
  isPhoto: boolean;
  /** Space is pressed: the pointer pans wherever it is. */
  isPanning: boolean;
}

/** Where the Floor looks: moved by the pointer, zoomed by the wheel, and where the pointer is. */
export function useLook({ stageRef, canvasRef, stage, tile, repeats, isPhoto, isPanning }: Looked) {
  // Kept relative to the tile, so that a sharper picture takes the place of a quick one without a jump.
  const [chosen, setChosen] = useState<Look | null>(null);
  const [pointer, setPointer] = useState<{ x: number; y: number } | null>(null);
  const drag = useRef<{ x: number; y: number; look: Look } | null>(null);
  const look = useMemo(() => chosen ?? fitLook(stage, tile, repeats), [chosen, stage, tile, repeats]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another number of repeats or shape is fitted again
  useEffect(() => setChosen(null), [repeats, isPhoto]);
  useEffect(() => {
    const element = stageRef.current;
    const turn = (event: WheelEvent) => {
      event.preventDefault();
      const box = element!.getBoundingClientRect();
      const factor = Math.exp(-event.deltaY * 0.0016);
      setChosen(zoomAt(look, tile, factor, event.clientX - box.left, event.clientY - box.top));
    };
    element?.addEventListener('wheel', turn, { passive: false });
    return () => element?.removeEventListener('wheel', turn);
  }, [look, tile, stageRef]);
  const fit = useCallback(() => setChosen(null), []);
  const toPixels = useSteady(() => setChosen(pixelLook(look, stage, tile, devicePixelRatio)));
  const handlers = {
    onPointerDownCapture(event: PointerEvent<HTMLElement>) {
      const isCanvas = event.target === canvasRef.current;
      if (!isCanvas && !isPanning) return;
      if (!isCanvas) event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { x: event.clientX, y: event.clientY, look };
    },
    onPointerMove(event: PointerEvent<HTMLElement>) {
      const box = event.currentTarget.getBoundingClientRect();
      setPointer({ x: event.clientX - box.left, y: event.clientY - box.top });
      const from = drag.current;
      if (!from) return;
      setChosen({
        ...from.look,
        x: from.look.x + event.clientX - from.x,
        y: from.look.y + event.clientY - from.y,
      });
    },
    onPointerUp() {
      drag.current = null;
    },
    onPointerLeave: () => setPointer(null),
  };
  return { look, pointer, fit, toPixels, handlers };
}
