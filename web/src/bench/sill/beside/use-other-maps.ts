import { useQuery } from '@tanstack/react-query';
import { parseRecipe, type Recipe, type SourceRef, stableJson, WORKING_SIZE } from '@zesty-tile/core';
import { answerOf, api } from '../../../api/client.ts';
import type { ShownMaps } from '../../../engine/protocol.ts';
import { useBench } from '../../state.ts';
import { engineNow } from '../../use-engine.ts';
import { versionRecipe } from '../../versions/use-versions.ts';
import type { Beside } from '../state.ts';

interface Given {
  recipe: Recipe;
  source: SourceRef;
}

async function tileGiven(id: string): Promise<Given> {
  const { revision, source } = await answerOf(api.tiles[':id'].$get({ param: { id } }));
  return { recipe: parseRecipe(revision.recipe), source };
}

async function made({ recipe, source }: Given): Promise<{ maps: ShownMaps; edgeMetres: number }> {
  const engine = engineNow();
  if (!engine) throw new Error('The engine is not at hand.');
  const { size, edgeMetres } = recipe.stations.square;
  const { sha256, width, height } = source;
  const maps = await engine.mapsOf(
    { recipe, source: { sha256, width, height } },
    Math.min(WORKING_SIZE, size),
  );
  return { maps, edgeMetres };
}

/** Maps of another tile as it stands now, for the Sill; computed in the worker, and kept. */
export const useTileMaps = (id: string | undefined) =>
  useQuery({
    queryKey: ['sill tile', id],
    queryFn: async () => made(await tileGiven(id!)),
    enabled: id !== undefined,
    retry: 2,
    staleTime: 30_000,
  });

/** Maps of what is held beside the current tile; null while they are made, or where they are its own. */
export function useBesideMaps(beside: Beside | null): { maps: ShownMaps | null; problem: string } {
  const tileId = useBench((s) => s.tileId);
  const source = useBench((s) => s.source);
  const version = beside?.kind === 'version' ? beside.number : null;
  const ofVersion = useQuery({
    queryKey: ['sill version', tileId, version, stableJson(source)],
    queryFn: async () => made({ recipe: await versionRecipe(tileId, version!), source }),
    enabled: version !== null,
    retry: 2,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const ofTile = useTileMaps(beside?.kind === 'tile' ? beside.id : undefined);
  const query = version !== null ? ofVersion : ofTile;
  return { maps: query.data?.maps ?? null, problem: query.error ? 'It cannot be computed.' : '' };
}
