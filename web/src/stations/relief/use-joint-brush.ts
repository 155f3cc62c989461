import type { MaskStroke } from '@zesty-tile/core';
import { create } from 'zustand';
import { type BrushPoint, fromHome } from '../../bench/floor/use-brush.ts';
import { useBench } from '../../bench/state.ts';
import type { BrushTip } from '../../masks/brush-tools.tsx';

interface JointBrush {
  /** Whether the brush takes joints away; null while it is put away. */
  erase: boolean | null;
  tip: BrushTip;
}

/** The brush that repairs the net of joints. */
export const useJointBrush = create<JointBrush>(() => ({
  erase: null,
  tip: { radius: 0.008, softness: 0 },
}));

/** Takes the brush, with the joints on the Floor; or puts it away. */
export function takeJointBrush(erase: boolean | null): void {
  useJointBrush.setState({ erase });
  const { chosenView, set } = useBench.getState();
  if (erase !== null) set({ chosenView: 'joints' });
  else if (chosenView === 'joints') set({ chosenView: null });
}

const put = (jointStrokes: MaskStroke[]) => useBench.getState().setDials('relief', { jointStrokes }, '');

export function addJointStroke(points: BrushPoint[]): void {
  const { erase, tip } = useJointBrush.getState();
  const { jointStrokes } = useBench.getState().recipe.stations.relief;
  put([...jointStrokes, { points: fromHome(points), ...tip, erase: erase === true }]);
}

export function undoJointStroke(): void {
  put(useBench.getState().recipe.stations.relief.jointStrokes.slice(0, -1));
}
