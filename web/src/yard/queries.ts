import { useQuery } from '@tanstack/react-query';
import { answerOf, api } from '../api/client.ts';

export const useProjects = () =>
  useQuery({ queryKey: ['projects'], queryFn: () => answerOf(api.projects.$get()) });

export const useTiles = (projectId: string | undefined) =>
  useQuery({
    queryKey: ['tiles', projectId],
    queryFn: () => answerOf(api.tiles.$get({ query: { project: projectId } } as never)),
    enabled: projectId !== undefined,
    staleTime: 0,
  });

/** Thumbnail and verdicts of a tile's newest revision; the server measures them once. */
export const useLook = (tileId: string, revision: number) =>
  useQuery({
    queryKey: ['look', tileId, revision],
    queryFn: () => answerOf(api.tiles[':id'].look.$get({ param: { id: tileId } })),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
