import type { CoatPart, PaintStroke } from '@zesty-tile/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Size } from '../../bench/floor/geometry.ts';
import { TintLayer } from '../../bench/floor/tint-layer.tsx';
import type { BrushPlane } from '../../bench/floor/use-brush.ts';
import { useBench } from '../../bench/state.ts';
import { addStroke, type Owner, useCoats } from './use-coats.ts';

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
  // biome-ignore lint/correctness/useExhaustiveDependencies: told by new maps alone
  useEffect(() => setShown(latest.current), [maps]);
  return strokes.length > shown ? strokes.slice(shown) : NONE;
}

/** Over the Floor while a painted part has the brush: the stroke under the pointer, and those the tile does not show yet. */
function Brush({
  owner,
  strokes,
  plane,
  stage,
  lay,
}: Omit<BrushLayerProps, 'parts'> & { strokes: readonly PaintStroke[] }) {
  const { brush, radius, softness, mirror } = useCoats();
  const axes = useBench((s) => s.recipe.stations.join.axes);
  const pending = usePending(strokes);
  const erase = brush?.erase ?? false;
  const tip = useMemo(
    () => ({ radius, softness, erase, ...(mirror === 'none' ? {} : { mirror }) }),
    [radius, softness, erase, mirror],
  );
  return (
    <TintLayer
      name="painted coat"
      look="stroke"
      plane={plane}
      stage={stage}
      lay={lay}
      wraps={axes !== 'neither'}
      mask={null}
      strokes={pending}
      brush={tip}
      onStroke={(points) => addStroke(owner, points)}
    />
  );
}

/** Takes strokes of the brush, where one is in hand for a painted part. */
export function BrushLayer({ parts, ...props }: BrushLayerProps) {
  const part = useCoats((s) => (s.brush ? parts[s.brush.part] : undefined));
  return part?.by === 'strokes' ? <Brush {...props} strokes={part.strokes} /> : null;
}
