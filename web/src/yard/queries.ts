import { type QueryClient, queryOptions, useQuery } from '@tanstack/react-query';
import type { Shape, Verdict } from '@zesty-tile/core';
import { answerOf, api } from '../api/client.ts';

/** How a tile looks and what its stations found. */
export interface TileLook {
  verdicts: Record<string, Verdict>;
  thumbnail: string;
  ball: string;
  maps: Record<string, string>;
}

/** A tile as it is in the Yard. */
export interface YardTile {
  id: string;
  projectId: string;
  name: string;
  createdAt: string;
  changedAt: string;
  tags: string[];
  revision: number;
  size: number;
  edgeMetres: number;
  shape: Shape;
  /** Null until the server has measured it once. */
  look: TileLook | null;
}

const projects = queryOptions({ queryKey: ['projects'], queryFn: () => answerOf(api.projects.$get()) });

const tilesOf = (projectId: string | undefined) =>
  queryOptions({
    queryKey: ['tiles', projectId],
    queryFn: async () =>
      (await answerOf(api.tiles.$get({ query: { project: projectId } } as never))).tiles as YardTile[],
    enabled: projectId !== undefined,
    staleTime: 0,
  });

export const useProjects = () => useQuery(projects);

export const useTiles = (projectId: string | undefined) => useQuery(tilesOf(projectId));

/** Asks for what the Yard shows first while its code is still on the way. What fails is asked for again, and told, there. */
export async function askAhead(queries: QueryClient): Promise<void> {
  const found = await queries.fetchQuery(projects).catch(() => null);
  const wanted = new URLSearchParams(location.search).get('project');
  const open = found?.projects.find(({ id }) => id === wanted) ?? found?.projects[0];
  if (open) await queries.prefetchQuery(tilesOf(open.id));
}

/** The look of a tile's newest revision; the server measures it once. */
export const useLook = (tileId: string, revision: number, wanted: boolean) =>
  useQuery({
    queryKey: ['look', tileId, revision],
    queryFn: () => answerOf(api.tiles[':id'].look.$get({ param: { id: tileId } })) as Promise<TileLook>,
    enabled: wanted,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
