import { useQueryClient } from '@tanstack/react-query';
import { parseRecipe } from '@zesty-tile/core';
import { useSnackbar } from 'notistack';
import { answerOf, api } from '../api/client.ts';
import { useRemoval, useUndoable } from '../api/use-undoable.tsx';
import { wordsOf } from '../api/words-of.ts';
import type { RecipeTarget } from '../recipes/recipe-dialog.tsx';
import type { YardTile } from './queries.ts';

/** What can be done with a tile of the Yard; a failure is shown in a note. */
export function useTileActions(tile: YardTile) {
  const queries = useQueryClient();
  const remove = useRemoval();
  const undoable = useUndoable();
  const { enqueueSnackbar } = useSnackbar();
  const again = () => queries.invalidateQueries();
  const tried = async (work: () => Promise<unknown>, said = '') => {
    try {
      await work();
      await again();
      if (said) enqueueSnackbar(said);
    } catch (error) {
      enqueueSnackbar(wordsOf(error), { variant: 'error' });
    }
  };
  const change = (json: object) =>
    answerOf(api.tiles[':id'].$patch({ param: { id: tile.id }, json } as never));
  const duplicate = () => {
    let copy = '';
    return undoable(
      `“${tile.name} copy” was made.`,
      async () => {
        const made = await answerOf(api.tiles[':id'].duplicate.$post({ param: { id: tile.id } }));
        copy = made.tile.id;
      },
      () => answerOf(api.tiles[':id'].$delete({ param: { id: copy } })),
    );
  };
  const put = async (json: object) => {
    const sent = api.tiles[':id'].revisions.$post({ param: { id: tile.id }, json } as never);
    return (await answerOf<unknown>(sent)) as { revision: { number: number } };
  };
  const openRecipe = (open: (target: RecipeTarget) => void) =>
    tried(async () => {
      const { revision } = await answerOf(api.tiles[':id'].$get({ param: { id: tile.id } }));
      open({
        tileName: tile.name,
        recipe: parseRecipe(revision.recipe),
        take: async (recipe, name) => {
          const saved = await put({ base: revision.number, recipe });
          await undoable(
            `“${name}” was applied to ${tile.name}.`,
            async () => {},
            () => put({ base: saved.revision.number, recipe: revision.recipe }),
          );
        },
      });
    });
  const setTags = (tags: string[]) => tried(() => change({ tags }));
  const bake = () =>
    tried(
      () => answerOf(api.tiles[':id'].crates.$post({ param: { id: tile.id } })),
      `${tile.name} is being crated.`,
    );
  const rename = async (name: string) => {
    await change({ name });
    await again();
  };
  const move = (project: { id: string; name: string }) =>
    undoable(
      `${tile.name} is in ${project.name} now.`,
      () => change({ projectId: project.id }),
      () => change({ projectId: tile.projectId }),
    );
  const removeTile = () => remove(api.tiles, tile.id, tile.name);
  return { duplicate, openRecipe, setTags, bake, rename, move, remove: removeTile };
}
