import { create } from 'zustand';
import type { ViewName } from '../../engine/views.ts';
import { useBench } from '../state.ts';

/** Where was pressed, in shares of what is shown, and the linear colour (or values) there. */
export interface Picked {
  at: [number, number];
  values: number[];
}

/** Something to be picked from the Floor by one press. */
interface Pick {
  /** What to press on. */
  words: string;
  /** On which view. */
  view: ViewName;
  take(picked: Picked): void;
}

export const usePick = create<{ pick: Pick | null }>(() => ({ pick: null }));

let before: ViewName | null = null;

/** Asks for a press on the Floor, which shows the view it is for. */
export function startPick(pick: Pick): void {
  if (!usePick.getState().pick) before = useBench.getState().chosenView;
  useBench.getState().set({ chosenView: pick.view });
  usePick.setState({ pick });
}

/** Nothing is asked for any more; the Floor shows what it showed, or goes on with the view in use. */
export function endPick(stay = false): void {
  if (!usePick.getState().pick) return;
  usePick.setState({ pick: null });
  if (!stay) useBench.getState().set({ chosenView: before });
}
