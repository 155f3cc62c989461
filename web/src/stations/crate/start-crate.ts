import { answerOf, api } from '../../api/client.ts';
import { saveNow, useSave } from '../../bench/save.ts';

/** Saves what is in hand, then has the server make a crate of it. @throws ApiError, or Error in words. */
export async function startCrate(tileId: string) {
  await saveNow();
  const { state } = useSave.getState();
  if (state.kind !== 'saved') throw new Error('The tile could not be saved yet, so nothing was crated.');
  const { crate } = await answerOf(api.tiles[':id'].crates.$post({ param: { id: tileId } }));
  return crate;
}
