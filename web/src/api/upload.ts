import { newRecipe, type Recipe } from '@zesty-tile/core';
import { useSettings } from '../settings/settings.ts';
import { answerOf, api } from './client.ts';

/** The longest name the server takes. */
const LONGEST = 120;

const baseName = (file: string): string =>
  file
    .replace(/\.[^.]*$/, '')
    .trim()
    .slice(0, LONGEST) || 'Tile';

/** Stores a picture. @throws ApiError where it is refused. */
export async function storePicture(file: File) {
  const { source } = await answerOf(api.sources.$post({ form: { file } } as never));
  return { sha256: source.sha256, name: file.name.slice(-LONGEST) };
}

/** The recipe a new tile starts with: defaults, with the size and edge that were chosen in Settings. */
function firstRecipe(): Recipe {
  const { size, edgeMetres } = useSettings.getState();
  const recipe = newRecipe();
  const square = { ...recipe.stations.square, size, edgeMetres } as Recipe['stations']['square'];
  return { ...recipe, stations: { ...recipe.stations, square } };
}

/** Stores a picture and makes a tile of it. @throws ApiError where the picture is refused. */
export async function makeTileFrom(file: File, projectId: string) {
  const { sha256, name } = await storePicture(file);
  const { tile } = await answerOf(
    api.tiles.$post({
      json: {
        projectId,
        name: baseName(file.name),
        sourceSha256: sha256,
        sourceName: name,
        recipe: firstRecipe(),
      },
    } as never),
  );
  return tile;
}
