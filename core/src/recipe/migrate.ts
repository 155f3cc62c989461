import { toVersion2 } from './migrations/1.ts';

/** The version of recipes that this program writes. */
export const RECIPE_VERSION = 2;

/** By the version they start from: each makes the next version of a recipe. */
const MIGRATIONS: Record<number, (recipe: Record<string, unknown>) => Record<string, unknown>> = {
  1: toVersion2,
};

/**
 * A recipe of an earlier version as one of the present version; anything else as it is. Nothing is checked: what is wrong in
 * the recipe is still wrong in what comes out.
 */
export function migrated(value: unknown): unknown {
  let recipe = value;
  while (recipe && typeof recipe === 'object' && !Array.isArray(recipe)) {
    const { version } = recipe as { version?: unknown };
    const migrate = typeof version === 'number' ? MIGRATIONS[version] : undefined;
    if (!migrate) break;
    recipe = migrate(recipe as Record<string, unknown>);
  }
  return recipe;
}
