import { applySaved, changesBetween, parseRecipe, type Recipe, type SavedRecipe } from '@zesty-tile/core';
import { answerOf, api } from '../../api/client.ts';
import { useUndoable } from '../../api/use-undoable.tsx';
import type { YardTile } from '../queries.ts';

/** What a saved recipe would change in one tile. */
export interface Previewed {
  tile: YardTile;
  base: number;
  before: Recipe;
  after: Recipe;
  changes: number;
}

const change = (id: string, json: object) =>
  answerOf(api.tiles[':id'].$patch({ param: { id }, json } as never));

async function put(id: string, base: number, recipe: unknown): Promise<number> {
  const sent = api.tiles[':id'].revisions.$post({ param: { id }, json: { base, recipe } } as never);
  return ((await answerOf<unknown>(sent)) as { revision: { number: number } }).revision.number;
}

/** What a saved recipe would change in each of some tiles. @throws ApiError where one cannot be read. */
export const previewOf = (saved: SavedRecipe, tiles: readonly YardTile[]): Promise<Previewed[]> =>
  Promise.all(
    tiles.map(async (tile) => {
      const { revision } = await answerOf(api.tiles[':id'].$get({ param: { id: tile.id } }));
      const before = parseRecipe(revision.recipe);
      const after = applySaved(before, saved);
      return { tile, base: revision.number, before, after, changes: changesBetween(before, after).length };
    }),
  );

/** What can be done with several tiles at once; each is one deed that can be undone. */
export function useSeveral(tiles: readonly YardTile[]) {
  const undoable = useUndoable();
  const words = tiles.length === 1 ? '1 tile' : `${tiles.length} tiles`;
  const each = (work: (tile: YardTile) => Promise<unknown>) => Promise.all(tiles.map(work));
  return {
    words,
    tag: (tag: string) =>
      undoable(
        `${words} tagged “${tag}”.`,
        () => each(({ id, tags }) => change(id, { tags: [...new Set([...tags, tag])] })),
        () => each(({ id, tags }) => change(id, { tags })),
      ),
    move: (project: { id: string; name: string }) =>
      undoable(
        `${words} moved to ${project.name}.`,
        () => each(({ id }) => change(id, { projectId: project.id })),
        () => each(({ id, projectId }) => change(id, { projectId })),
      ),
    duplicate: () => {
      const copies: string[] = [];
      return undoable(
        `${words} duplicated.`,
        () =>
          each(async ({ id }) => {
            const made = await answerOf(api.tiles[':id'].duplicate.$post({ param: { id } }));
            copies.push(made.tile.id);
          }),
        () => Promise.all(copies.map((id) => answerOf(api.tiles[':id'].$delete({ param: { id } })))),
      );
    },
    remove: () =>
      undoable(
        `${words} deleted.`,
        () => each(({ id }) => answerOf(api.tiles[':id'].$delete({ param: { id } }))),
        () => each(({ id }) => answerOf(api.tiles[':id'].restore.$post({ param: { id } }))),
      ),
    apply: (name: string, previewed: readonly Previewed[]) => {
      const changed = previewed.filter(({ changes }) => changes > 0);
      const bases = new Map<string, number>();
      return undoable(
        `“${name}” applied to ${changed.length === 1 ? '1 tile' : `${changed.length} tiles`}.`,
        () =>
          Promise.all(
            changed.map(async ({ tile, base, after }) => bases.set(tile.id, await put(tile.id, base, after))),
          ),
        () => Promise.all(changed.map(({ tile, before }) => put(tile.id, bases.get(tile.id)!, before))),
      );
    },
  };
}
