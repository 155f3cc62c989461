import {
  attachSheets,
  detachSheets,
  parseRecipe,
  type Recipe,
  type Sheet,
  type StoredRecipe,
  sheetsIn,
} from '@zesty-tile/core';

/** Changes not yet saved by the server. */
export interface Draft {
  base: number;
  recipe: Recipe;
}

/** A draft as this browser keeps it, so that no crash loses it: without strokes that the server holds. */
interface KeptDraft {
  base: number;
  recipe: StoredRecipe;
  sheets?: Record<string, Sheet>;
}

const key = (tileId: string) => `zesty draft ${tileId}`;

/** Keeps a draft. Strokes go with it but for those on sheets that the server holds. */
export function keepDraft(tileId: string, { base, recipe }: Draft, isHeld: (hash: string) => boolean): void {
  const { stored, sheets } = detachSheets(recipe);
  const own = Object.fromEntries([...sheets].filter(([hash]) => !isHeld(hash)));
  const kept: KeptDraft = { base, recipe: stored, sheets: own };
  try {
    localStorage.setItem(key(tileId), JSON.stringify(kept));
  } catch {
    // A full or forbidden store leaves the server as the only keeper; saving goes on.
  }
}

export function dropDraft(tileId: string): void {
  localStorage.removeItem(key(tileId));
}

function keptDraft(tileId: string): KeptDraft | null {
  try {
    const kept = JSON.parse(localStorage.getItem(key(tileId)) ?? 'null') as KeptDraft | null;
    return kept && Number.isInteger(kept.base) ? kept : null;
  } catch {
    return null;
  }
}

/** Hashes of the sheets that a tile's draft needs and does not hold itself. */
export function sheetsForDraft(tileId: string): string[] {
  const kept = keptDraft(tileId);
  return sheetsIn(kept?.recipe).filter((hash) => !(hash in (kept?.sheets ?? {})));
}

/**
 * The draft of a tile, when there is a valid one; one of an earlier version is brought to the present one. `find` gives sheets
 * that it does not hold itself.
 */
export function readDraft(tileId: string, find: (hash: string) => Sheet | undefined): Draft | null {
  const kept = keptDraft(tileId);
  if (!kept) return null;
  const sheetOf = (hash: string): Sheet => {
    const sheet = kept.sheets?.[hash] ?? find(hash);
    if (!sheet) throw new Error(`There is no sheet ${hash}.`);
    return sheet;
  };
  try {
    return { base: kept.base, recipe: parseRecipe(attachSheets(kept.recipe, sheetOf)) };
  } catch {
    return null;
  }
}
