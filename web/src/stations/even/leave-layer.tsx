import { useMemo } from 'react';
import type { Size } from '../../bench/floor/geometry.ts';
import { TintLayer } from '../../bench/floor/tint-layer.tsx';
import type { BrushPlane } from '../../bench/floor/use-brush.ts';
import { useBench } from '../../bench/state.ts';
import { addLeaveStroke, useLeave } from './use-leave.ts';

interface LeaveLayerProps {
  plane: BrushPlane;
  stage: Size;
  lay: number;
}

/** Over the evened crop while the brush is in use: what is painted to be left alone, tinted. */
export function LeaveLayer(props: LeaveLayerProps) {
  const { tool, radius, softness } = useLeave();
  const strokes = useBench((s) => s.recipe.stations.even.leave);
  const brush = useMemo(() => tool && { radius, softness, erase: tool === 'take' }, [tool, radius, softness]);
  return (
    <TintLayer
      {...props}
      name="leave"
      look="tint"
      wraps={false}
      mask={null}
      strokes={strokes}
      brush={brush}
      onStroke={addLeaveStroke}
    />
  );
}
