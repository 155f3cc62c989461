import type { CoatPart, PaintStroke } from '@zesty-tile/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Size } from '../../../bench/floor/geometry.ts';
import type { BrushPlane } from '../../../bench/floor/use-brush.ts';
import { useBench } from '../../../bench/state.ts';
import { addStroke, type Owner, useCoats } from '../use-coats.ts';
import { PaintLayer } from './paint-layer.tsx';
import { useCarried } from './tip.ts';

interface BrushLayerProps {
  owner: Owner;
  parts: readonly CoatPart[];
  plane: BrushPlane;
  stage: Size;
  lay: number;
}

const NONE: readonly PaintStroke[] = [];

/** Strokes that were drawn since the tile was last shown: they lie over it until it follows. */
function usePending(strokes: readonly PaintStroke[]): readonly PaintStroke[] {
  const maps = useBench((s) => s.maps);
  const [shown, setShown] = useState(strokes.length);
  const latest = useRef(strokes.length);
  latest.current = strokes.length;
  // biome-ignore lint/correctness/useExhaustiveDependencies: runs when the maps change
  useEffect(() => setShown(latest.current), [maps]);
  return strokes.length > shown ? strokes.slice(shown) : NONE;
}

/** The brush of a painted part, over the Floor. */
function Brush({
  owner,
  strokes,
  ...floor
}: Omit<BrushLayerProps, 'parts'> & { strokes: readonly PaintStroke[] }) {
  const { part, erase } = useCoats((s) => s.brush!);
  const carries = useCarried(owner, part);
  const axes = useBench((s) => s.recipe.stations.join.axes);
  const pending = usePending(strokes);
  const wraps = useMemo(
    () => ({ x: axes === 'both' || axes === 'across', y: axes === 'both' || axes === 'down' }),
    [axes],
  );
  return (
    <PaintLayer
      {...floor}
      wraps={wraps}
      pending={pending}
      erase={erase}
      carries={carries}
      seed={strokes.length + 1}
      onStroke={(stroke) => addStroke(owner, stroke)}
    />
  );
}

/** Takes strokes while the brush is selected for a painted part. */
export function BrushLayer({ parts, ...props }: BrushLayerProps) {
  const part = useCoats((s) => (s.brush ? parts[s.brush.part] : undefined));
  return part?.by === 'strokes' ? <Brush {...props} strokes={part.strokes} /> : null;
}
