import type { Recipe } from '@zesty-tile/core';
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

interface SetUpOptions {
  signal?: AbortSignal;
  /** Settings that stay as they are, as “station.key”. */
  chosen?: readonly string[];
  onProgress(done: number): void;
}

/** What the measurements of a picture propose; null where they cannot be made: the tile is made all the same. */
async function proposedFor(
  { sha256, width, height }: StoredPicture,
  recipe: Recipe,
  { signal, onProgress, chosen }: SetUpOptions,
) {
  const { setUpPhoto } = await import('../setup/set-up-photo.ts');
  try {
    return await setUpPhoto({ recipe, source: { sha256, width, height }, chosen }, onProgress, signal);
  } catch (error) {
    if (signal?.aborted) throw error;
    return null;
  }
}

/** Makes a tile of a stored picture; with `setup` it is set up by what is measured.
 * @throws ApiError where it is refused; what `signal` was aborted with, and then there is no tile. */
export async function makeTileOf(
  picture: StoredPicture,
  projectId: string,
  name: string,
  first: FirstSettings,
  setup?: SetUpOptions,
) {
  // It knows every station, and is not wanted before the first picture is.
  const { firstRecipe } = await import('./first-recipe.ts');
  const recipe = firstRecipe(first);
  const proposed = setup ? await proposedFor(picture, recipe, setup) : null;
  const json = {
    projectId,
    name: name.slice(0, LONGEST),
    sourceSha256: picture.sha256,
    sourceName: picture.name,
    recipe: proposed?.recipe ?? recipe,
    ...(proposed ? { proposals: proposed.proposals } : {}),
  };
  setup?.signal?.throwIfAborted();
  const { tile } = await answerOf(api.tiles.$post({ json } as never));
  if (setup?.signal?.aborted) {
    // Cancelled while the server was making it: it goes again.
    await answerOf(api.tiles[':id'].$delete({ param: { id: tile.id } } as never));
    throw setup.signal.reason;
  }
  return tile;
}
