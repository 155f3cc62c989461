import { answerOf, api } from './client.ts';
import type { FirstSettings } from './first-recipe.ts';

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
export async function storePicture(file: File, signal?: AbortSignal): Promise<StoredPicture> {
  const { source } = await answerOf(api.sources.$post({ form: { file } } as never, { init: { signal } }));
  const { sha256, width, height } = source;
  return { sha256, width, height, name: file.name.slice(-LONGEST) };
}

/** Makes a tile of a stored picture. @throws ApiError where it is refused. */
export async function makeTileOf(
  picture: StoredPicture,
  projectId: string,
  name: string,
  first: FirstSettings,
) {
  // It knows every station, and is not wanted before the first picture is.
  const { firstRecipe } = await import('./first-recipe.ts');
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
