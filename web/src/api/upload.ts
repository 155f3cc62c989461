import { newRecipe, type Recipe } from '@zesty-tile/core';
import { useSettings } from '../settings/settings.ts';
import { answerOf, api } from './client.ts';

/** The longest name the server takes. */
const LONGEST = 120;

export const baseName = (file: string): string =>
  file
    .replace(/\.[^.]*$/, '')
    .trim()
    .slice(0, LONGEST) || 'Tile';

/** A picture in the store, with the name of the file it came from. */
export interface StoredPicture {
  sha256: string;
  width: number;
  height: number;
  name: string;
}

/** Stores a picture. @throws ApiError where it is refused. */
export async function storePicture(file: File): Promise<StoredPicture> {
  const { source } = await answerOf(api.sources.$post({ form: { file } } as never));
  const { sha256, width, height } = source;
  return { sha256, width, height, name: file.name.slice(-LONGEST) };
}

/** Settings a new tile starts with, where they are not the usual ones. */
export type FirstSettings = { [S in keyof Recipe['stations']]?: Partial<Recipe['stations'][S]> };

/** The recipe a new tile starts with: defaults, the size and edge chosen in Settings, and what is known of it. */
function firstRecipe(first: FirstSettings): Recipe {
  const { size, edgeMetres } = useSettings.getState();
  const recipe = newRecipe();
  const stations = { ...recipe.stations, square: { ...recipe.stations.square, size, edgeMetres } };
  const changed = Object.fromEntries(
    Object.entries(stations).map(([name, settings]) => [
      name,
      { ...settings, ...first[name as keyof FirstSettings] },
    ]),
  );
  return { ...recipe, stations: changed as unknown as Recipe['stations'] };
}

/** Makes a tile of a stored picture. @throws ApiError where it is refused. */
export async function makeTileOf(
  picture: StoredPicture,
  projectId: string,
  name: string,
  first: FirstSettings,
) {
  const json = {
    projectId,
    name: name.slice(0, LONGEST),
    sourceSha256: picture.sha256,
    sourceName: picture.name,
    recipe: firstRecipe(first),
  };
  const { tile } = await answerOf(api.tiles.$post({ json } as never));
  return tile;
}
