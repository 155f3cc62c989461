import { parseRecipe, type Recipe } from '@zesty-tile/core';

/** Changes not yet saved by the server, kept in this browser so that no crash loses them. */
export interface Draft {
  base: number;
  recipe: Recipe;
}

const key = (tileId: string) => `zesty draft ${tileId}`;

export function keepDraft(tileId: string, draft: Draft): void {
  try {
    localStorage.setItem(key(tileId), JSON.stringify(draft));
  } catch {
    // A full or forbidden store leaves the server as the only keeper; saving goes on.
  }
}

export function dropDraft(tileId: string): void {
  localStorage.removeItem(key(tileId));
}

/** The draft of a tile, when there is a valid one; one of an earlier version is brought to the present one. */
export function readDraft(tileId: string): Draft | null {
  try {
    const draft = JSON.parse(localStorage.getItem(key(tileId)) ?? 'null') as Draft | null;
    return draft && Number.isInteger(draft.base) ? { ...draft, recipe: parseRecipe(draft.recipe) } : null;
  } catch {
    return null;
  }
}
