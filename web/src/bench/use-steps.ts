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

/** The steps since the tile was opened, newest first, and the names of the next undo and redo. */
export function useSteps(): { steps: NamedStep[]; undo: string | null; redo: string | null } {
  const past = useStore(useBench.temporal, (s) => s.pastStates) as { recipe: Recipe }[];
  const future = useStore(useBench.temporal, (s) => s.futureStates) as { recipe: Recipe }[];
  const recipe = useBench((s) => s.recipe);
  const row = [...past, { recipe }, ...[...future].reverse()].map((one) => one.recipe);
  const here = past.length;
  const steps = row
    .slice(1)
    .map((after, k) => ({ words: stepWords(row[k], after), back: here - (k + 1) }))
    .reverse();
  return {
    steps,
    undo: here > 0 ? stepWords(row[here - 1], row[here]) : null,
    redo: future.length > 0 ? stepWords(row[here], row[here + 1]) : null,
  };
}
