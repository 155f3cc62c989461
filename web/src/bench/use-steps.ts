import type { Recipe } from '@zesty-tile/core';
import { useStore } from 'zustand';
import { useBench } from './state.ts';
import { endGesture, stepWords } from './steps.ts';

/** Goes back (or, with a negative count, forward) so many steps. */
export function goBack(steps: number): void {
  const { undo, redo } = useBench.temporal.getState();
  endGesture();
  if (steps > 0) undo(steps);
  else redo(-steps);
}

/** A step that was taken or undone: its words, and how many steps back its outcome lies. */
export interface NamedStep {
  words: string;
  back: number;
}

/** All recipes from the first to the last step, undone ones too, and which of them is in use. */
function useRow(): { row: Recipe[]; here: number } {
  const past = useStore(useBench.temporal, (s) => s.pastStates) as { recipe: Recipe }[];
  const future = useStore(useBench.temporal, (s) => s.futureStates) as { recipe: Recipe }[];
  const recipe = useBench((s) => s.recipe);
  const row = [...past, { recipe }, ...[...future].reverse()].map((one) => one.recipe);
  return { row, here: past.length };
}

/** The names of the next undo and redo; looked at on every move of a dial, so no more than these. */
export function useNextSteps(): { undo: string | null; redo: string | null } {
  const { row, here } = useRow();
  return {
    undo: here > 0 ? stepWords(row[here - 1], row[here]) : null,
    redo: here < row.length - 1 ? stepWords(row[here], row[here + 1]) : null,
  };
}

/** The steps since the tile was opened, newest first. */
export function useSteps(): NamedStep[] {
  const { row, here } = useRow();
  return row
    .slice(1)
    .map((after, k) => ({ words: stepWords(row[k], after), back: here - (k + 1) }))
    .reverse();
}
