import type { SourceRef } from '../pixels/pixels.ts';
import type { Recipe } from '../recipe/recipe.ts';
import type { Frame } from '../tile/frame.ts';
import { settingsIn, stationList } from './stations.ts';

/** What every station knows of the tile, made at `size` pixels of its longer edge, or at the wanted size where it is null. */
export function frameOf(
  { source, recipe }: { source: SourceRef; recipe: Recipe },
  size: number | null,
): Frame {
  const facts = stationList.map((station) =>
    station.setsFrame?.(settingsIn(recipe, station.name), source, size),
  );
  return Object.assign({ seed: recipe.seed, masks: recipe.masks }, ...facts);
}
