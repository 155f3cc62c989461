import { useMemo } from 'react';
import { TintLayer } from '../../bench/floor/tint-layer.tsx';
import { MaskOverlay } from '../../masks/mask-layer.tsx';
import type { FloorScene } from '../station.ts';
import { addJointStroke, useJointBrush } from './use-joint-brush.ts';

/** Over the joints while their brush is in use: it draws, and the net follows. Else what the open zone covers. */
export function ReliefOverlay(scene: FloorScene) {
  const { shown, isBefore, plane, stage, repeats } = scene;
  const { erase, tip } = useJointBrush();
  const brush = useMemo(() => (erase === null ? null : { ...tip, erase }), [erase, tip]);
  if (!brush || shown.view !== 'joints' || isBefore) return <MaskOverlay {...scene} />;
  return (
    <TintLayer
      name="joints"
      look="tint"
      plane={plane}
      stage={stage}
      lay={repeats}
      wraps
      mask={null}
      strokes={[]}
      brush={brush}
      onStroke={addJointStroke}
    />
  );
}
