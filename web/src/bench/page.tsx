import LinearProgress from '@mui/material/LinearProgress';
import { useQuery } from '@tanstack/react-query';
import { detachSheets, parseRecipe, type Sheet, STATION_NAMES, type StationName } from '@zesty-tile/core';
import { useEffect, useState } from 'react';
import { Navigate, useParams } from 'react-router';
import { answerOf, api } from '../api/client.ts';
import { openSetup } from '../setup/use-setup.ts';
import { Bench } from './bench.tsx';
import { dropDraft, readDraft, sheetsForDraft } from './draft.ts';
import { isSameWork, recipeChanged, startSaving, useSave } from './save.ts';
import { openTile, useBench } from './state.ts';

const isStation = (name: string | undefined): name is StationName =>
  STATION_NAMES.includes(name as StationName);

/** A tile, and strokes that its draft in this browser does not hold itself. */
async function tileWithSheets(id: string) {
  let sheets: Record<string, Sheet> = {};
  const tile = await answerOf(api.tiles[':id'].$get({ param: { id } }));
  const hashes = sheetsForDraft(id);
  if (hashes.length > 0) {
    ({ sheets } = await answerOf(api.sheets.find.$post({ json: { hashes } } as never)));
  }
  return { ...tile, sheets };
}

/** Loads a tile and hands it to the Bench; what an earlier visit left unsaved comes back. */
export function BenchPage() {
  const { id = '', station } = useParams();
  const [opened, setOpened] = useState('');
  const { data, error } = useQuery({
    queryKey: ['tile', id],
    queryFn: () => tileWithSheets(id),
    staleTime: 0,
    gcTime: 0,
  });
  useEffect(() => {
    if (!data || opened === id) return;
    const held = parseRecipe(data.revision.recipe);
    const { sha256, width, height } = data.source;
    const known = detachSheets(held).sheets;
    const kept = readDraft(id, (hash) => known.get(hash) ?? data.sheets[hash]);
    // A page that was left while its save was under way finds its own change saved: that is no conflict.
    const draft = kept && isSameWork(kept.recipe, held) ? null : kept;
    if (kept && !draft) dropDraft(id);
    startSaving(held);
    openTile({
      tileId: id,
      projectId: data.project.id,
      source: { sha256, width, height },
      recipe: draft?.recipe ?? held,
      base: draft?.base ?? data.revision.number,
    });
    openSetup(id, data.tile.proposals);
    if (draft && draft.base !== data.revision.number) {
      useSave.setState({ state: { kind: 'conflict', newest: data.revision.number } });
    } else recipeChanged();
    setOpened(id);
  }, [data, id, opened]);
  useEffect(() => {
    if (isStation(station)) useBench.getState().set({ station });
  }, [station]);
  if (error) throw error;
  if (!isStation(station)) return <Navigate to={`/tiles/${id}/source`} replace />;
  if (!data || opened !== id) return <LinearProgress aria-label="Opening the tile" />;
  return <Bench tile={data.tile} project={data.project} />;
}
