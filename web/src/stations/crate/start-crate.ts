import { answerOf, api } from '../../api/client.ts';
import { saveNow, useSave } from '../../bench/save.ts';

/** Saves what is in use, then has the server make a crate of it. @throws ApiError, or Error in words. */
export async function startCrate(tileId: string, refresh: boolean) {
  await saveNow();
  const { state } = useSave.getState();
  if (state.kind !== 'saved') throw new Error('The tile could not be saved yet, so nothing was crated.');
  const query = refresh ? { refresh: 'yes' } : {};
  await answerOf(api.tiles[':id'].crates.$post({ param: { id: tileId }, query } as never));
}
