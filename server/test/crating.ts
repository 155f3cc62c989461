import { newRecipe } from '@zesty-tile/core';
import type { TestServer } from './client.ts';

/** The events of a crate until it ends. */
export async function follow(server: TestServer, id: string) {
  const response = await fetch(`${server.url}/api/crates/${id}/events`);
  const text = await response.text();
  return [...text.matchAll(/^data: (.*)$/gm)].map((match) => JSON.parse(match[1]));
}

/** A recipe whose crate is made in a moment. */
export const smallRecipe = () => {
  const recipe = newRecipe();
  return {
    ...recipe,
    stations: { ...recipe.stations, square: { ...recipe.stations.square, size: 256 as const } },
  };
};
