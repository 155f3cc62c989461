import { useQuery } from '@tanstack/react-query';
import type { SavedRecipe as Saved } from '@zesty-tile/core';
import { answerOf, api } from '../api/client.ts';

/** Chosen sections of a recipe under a name. */
export interface SavedRecipe {
  id: string;
  name: string;
  recipe: Saved;
  createdAt: string;
}

export const useRecipes = () =>
  useQuery({
    queryKey: ['recipes'],
    queryFn: async () => (await answerOf(api.recipes.$get())).recipes as unknown as SavedRecipe[],
    staleTime: 0,
  });
