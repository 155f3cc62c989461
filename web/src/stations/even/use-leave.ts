import type { LeaveStroke } from '@zesty-tile/core';
import { create } from 'zustand';
import { type BrushPoint, fromHome } from '../../bench/floor/use-brush.ts';
import { useBench } from '../../bench/state.ts';

interface LeaveBrush {
  /** What the brush does, or null while it is put away. */
  tool: 'leave' | 'take' | null;
  radius: number;
  softness: number;
}

/** The brush for what Even is to leave alone. */
export const useLeave = create<LeaveBrush>(() => ({ tool: null, radius: 0.06, softness: 0.5 }));

export function takeLeaveBrush(tool: LeaveBrush['tool']): void {
  useLeave.setState({ tool });
  if (tool) useBench.getState().set({ chosenView: null });
}

/** A stroke whose first point lies in the crop. */
export function leaveStroke(points: BrushPoint[]): LeaveStroke {
  const { tool, radius, softness } = useLeave.getState();
  return { points: fromHome(points), radius, softness, erase: tool === 'take' };
}

export function addLeaveStroke(points: BrushPoint[]): void {
  const { leave } = useBench.getState().recipe.stations.even;
  useBench.getState().setDials('even', { leave: [...leave, leaveStroke(points)] }, '');
}
