import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { parseRecipe, type Recipe } from '@zesty-tile/core';
import { answerOf, api } from '../../api/client.ts';

/** One version of a tile's recipe, and what changed since the one before it, in words. */
export interface Version {
  number: number;
  createdAt: string;
  changes: string[];
}

/** The versions of a tile, newest first; `newest` asks again when there is a newer one. */
export const useVersions = (tileId: string, newest: number) =>
  useInfiniteQuery({
    queryKey: ['versions', tileId, newest],
    queryFn: async ({ pageParam }) => {
      const query = pageParam === null ? {} : { before: String(pageParam) };
      return answerOf(api.tiles[':id'].revisions.$get({ param: { id: tileId }, query } as never)) as Promise<{
        revisions: Version[];
        more: boolean;
      }>;
    },
    initialPageParam: null as number | null,
    getNextPageParam: ({ revisions, more }) => (more ? revisions[revisions.length - 1].number : undefined),
    placeholderData: keepPreviousData,
  });

/** The thumbnail of a version; the server measures it once. */
export const useVersionLook = (tileId: string, number: number, wanted: boolean) =>
  useQuery({
    queryKey: ['version look', tileId, number],
    queryFn: () =>
      answerOf(
        api.tiles[':id'].revisions[':number'].look.$get({ param: { id: tileId, number: String(number) } }),
      ),
    enabled: wanted,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });

/** The recipe of a version. @throws ApiError */
export async function versionRecipe(tileId: string, number: number): Promise<Recipe> {
  const { revision } = await answerOf(
    api.tiles[':id'].revisions[':number'].$get({ param: { id: tileId, number: String(number) } }),
  );
  return parseRecipe(revision.recipe);
}
