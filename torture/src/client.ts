import { newRecipe } from '@zesty-tile/core';

/** Longer than this an answer may not take where nothing is computed, in ms. */
const HANG_MS = 10_000;

export interface Answer {
  /** Null where there was none: the server was gone, or took too long. */
  status: number | null;
  // biome-ignore lint/suspicious/noExplicitAny: answers are read as they come
  body: any;
  hung: boolean;
  ms: number;
}

const tryFetch = (address: string, init: () => RequestInit) =>
  fetch(address, init()).catch((error) => {
    if ((error as Error).name === 'TimeoutError') throw error;
    // A connection that the server closed for being idle is found closed when it is used: asked once more on a new one.
    return fetch(address, init());
  });

/** Asks a server; never throws. `patience` is how long the answer may take, in ms. */
export async function ask(
  url: string,
  method: string,
  path: string,
  body?: unknown,
  patience = HANG_MS,
): Promise<Answer> {
  const before = performance.now();
  const isRaw = body instanceof FormData || body instanceof Uint8Array || typeof body === 'string';
  try {
    const response = await tryFetch(url + path, () => ({
      method,
      body: body === undefined || isRaw ? (body as BodyInit) : JSON.stringify(body),
      signal: AbortSignal.timeout(patience),
    }));
    const text = await response.text();
    const ms = performance.now() - before;
    const isJson = response.headers.get('content-type')?.includes('json');
    return { status: response.status, body: isJson ? JSON.parse(text) : text, hung: false, ms };
  } catch (error) {
    const ms = performance.now() - before;
    return {
      status: null,
      body: `${error} ${(error as Error).cause ?? ''}`,
      hung: (error as Error).name === 'TimeoutError',
      ms,
    };
  }
}

export function upload(url: string, bytes: Uint8Array, name = 'photo.png'): Promise<Answer> {
  const form = new FormData();
  form.append('file', new File([new Uint8Array(bytes)], name));
  return ask(url, 'POST', '/api/sources', form);
}

/** A recipe whose crate is made in a moment; the seed tells versions apart. */
export function smallRecipe(seed = 1) {
  const recipe = newRecipe(seed);
  recipe.stations.square.size = 256;
  return recipe;
}

/** Makes a project and a tile of a picture. @throws Error where the server does not. */
export async function makeTile(url: string, picture: Uint8Array, name = 'Trial'): Promise<string> {
  const source = await upload(url, picture);
  const project = await ask(url, 'POST', '/api/projects', { name: 'Trials' });
  const tile = await ask(url, 'POST', '/api/tiles', {
    projectId: project.body.project?.id,
    name,
    sourceSha256: source.body.source?.sha256,
    sourceName: 'photo.png',
  });
  if (tile.status !== 201) throw new Error(`No tile was made: ${JSON.stringify(tile)}`);
  return tile.body.tile.id;
}
