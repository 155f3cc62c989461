import { parseRecipe } from '@zesty-tile/core';
import type { NavigateFunction } from 'react-router';
import { answerOf, api } from '../../api/client.ts';
import { useBench } from '../../bench/state.ts';

/**
 * Opens a crate again: its recipe in the tile it came from (there it can be undone), or its maps as a tile of their own.
 */
export async function openAgain(id: string, as: 'recipe' | 'set', navigate: NavigateFunction): Promise<void> {
  if (as === 'recipe') {
    const { crate, recipe } = await answerOf(api.crates[':id'].recipe.$get({ param: { id } }));
    if (useBench.getState().tileId === crate.tileId && location.pathname.includes(crate.tileId)) {
      useBench.getState().replaceRecipe(parseRecipe(recipe), `The recipe of crate ${crate.number}`);
      return;
    }
  }
  const { tileId } = await answerOf(api.crates[':id'].open.$post({ param: { id }, json: { as } } as never));
  navigate(`/tiles/${tileId}/source`);
}
