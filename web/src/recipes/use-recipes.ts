import { useQuery } from '@tanstack/react-query';
import type { SavedStations } from '@zesty-tile/core';
import { answerOf, api } from '../api/client.ts';

/** Settings of whole or chosen stations under a name. */
export interface SavedRecipe {
  id: string;
  name: string;
  stations: SavedStations;
  createdAt: string;
}

export const useRecipes = () =>
  useQuery({
    queryKey: ['recipes'],
    queryFn: async () => (await answerOf(api.recipes.$get())).recipes as unknown as SavedRecipe[],
    staleTime: 0,
  });
