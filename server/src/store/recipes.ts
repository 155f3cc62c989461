import {
  attachSheets,
  detachSheets,
  Problem,
  parseRecipe,
  type Recipe,
  type Sheet,
  sheetsIn,
} from '@zesty-tile/core';
import { inArray } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { strokeSheet } from '../db/schema.ts';

/** Sheets of one recipe: more than the largest lists of strokes come to. */
export const MOST_SHEETS = 4096;
/** Sheets asked for in one query. */
const AT_ONCE = 500;

/**
 * A recipe as its row stores it, and what stores its strokes: sheets that are stored already stay as they are. Run both in one
 * call, so that no row refers to a sheet that is missing.
 */
export function recipeToStore(db: Database, recipe: Recipe) {
  const { stored, sheets } = detachSheets(recipe);
  const rows = [...sheets].map(([hash, strokes]) => ({ hash, strokes }));
  const statements = rows.length > 0 ? [db.insert(strokeSheet).values(rows).onConflictDoNothing()] : [];
  return { stored, statements };
}

/** Sheets that are stored, by their hashes; what is not stored is left out. */
export async function storedSheets(db: Database, hashes: readonly string[]): Promise<Map<string, Sheet>> {
  const sheets = new Map<string, Sheet>();
  for (let from = 0; from < hashes.length; from += AT_ONCE) {
    const some = hashes.slice(from, from + AT_ONCE);
    const found = await db.select().from(strokeSheet).where(inArray(strokeSheet.hash, some));
    for (const { hash, strokes } of found) sheets.set(hash, strokes);
  }
  return sheets;
}

/** Rows with their recipes whole and of the present version, however they were stored. */
export async function withRecipes<T extends { recipe: unknown }>(
  db: Database,
  rows: readonly T[],
): Promise<(Omit<T, 'recipe'> & { recipe: Recipe })[]> {
  const hashes = [...new Set(rows.flatMap(({ recipe }) => sheetsIn(recipe)))];
  const sheets = await storedSheets(db, hashes);
  const find = (hash: string): Sheet => {
    const strokes = sheets.get(hash);
    if (strokes) return strokes;
    throw new Problem(
      'sheet_gone',
      'Strokes of this version are missing from the store.',
      'Open an earlier version of the tile, or restore the data folder from a copy.',
    );
  };
  return rows.map((row) => ({ ...row, recipe: parseRecipe(attachSheets(row.recipe, find)) }));
}
