import type { Recipe } from '@zesty-tile/core';
import { useEffect, useState } from 'react';
import { useBench } from './state.ts';

/**
 * The recipe as it was when its settings had last rested for so many ms and were on the screen; null before that. What is made beside
 * the tile follows this one, so that it does not hold up what a moving dial shows.
 */
export function useSettledRecipe(ms: number): Recipe | null {
  const stations = useBench((s) => s.recipe.stations);
  const isShown = useBench((s) => s.shown !== null && s.busy === null);
  const [settled, setSettled] = useState<Recipe | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: settings that move begin the rest again
  useEffect(() => {
    if (!isShown) return;
    const timer = setTimeout(() => setSettled(useBench.getState().recipe), ms);
    return () => clearTimeout(timer);
  }, [stations, isShown, ms]);
  return settled;
}
