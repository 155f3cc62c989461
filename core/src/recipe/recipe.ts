import * as v from 'valibot';
import { Problem } from '../problem.ts';
import { defaultsOf } from '../settings/kinds.ts';
import { schemaOf, schemaOfSetting } from '../settings/schema.ts';
import { STATION_NAMES, STATIONS, type StationName, type StationSettings } from '../stations/index.ts';
import { migrated, RECIPE_VERSION } from './migrate.ts';
import { type RecipeValues, ROOT_SETTINGS, type RootSettings, settingsOf } from './sections.ts';

/** Something settled once at the working size, and what it was settled on. */
export interface StoredDecision {
  key: string;
  data: unknown;
}

/** The settings of all stations as data, with what was settled for one picture. */
export interface Recipe extends RecipeValues {
  version: typeof RECIPE_VERSION;
  seed: number;
  decisions: Partial<Record<StationName, StoredDecision>>;
}

const stationsSchema = v.strictObject(
  Object.fromEntries(STATION_NAMES.map((name) => [name, v.optional(schemaOf(settingsOf(name)), {})])),
);

const decisionsSchema = v.strictObject(
  Object.fromEntries(
    STATION_NAMES.map((name) => [
      name,
      // One from another version of the program is left out: it is made again.
      v.optional(
        v.fallback(
          v.optional(
            v.strictObject({ key: v.string(), data: STATIONS[name].decision as v.GenericSchema<unknown> }),
          ),
          undefined,
        ),
      ),
    ]),
  ),
);

const rootEntries = Object.fromEntries(
  Object.entries(ROOT_SETTINGS).map(([key, setting]) => [
    key,
    v.optional(schemaOfSetting(setting), setting.default),
  ]),
);

/** A recipe of the present version as it may be written: stations and settings may be left out, unknown keys are errors. */
const recipeSchema = v.strictObject({
  version: v.literal(RECIPE_VERSION, `must be ${RECIPE_VERSION}`),
  seed: v.optional(
    v.pipe(
      v.number('must be a whole number'),
      v.integer('must be a whole number'),
      v.minValue(0, 'must not be negative'),
    ),
    1,
  ),
  ...rootEntries,
  stations: v.optional(stationsSchema, {}),
  decisions: v.optional(decisionsSchema, {}),
});

/** A new recipe: every setting at its default. */
export function newRecipe(seed = 1): Recipe {
  const stations = Object.fromEntries(
    STATION_NAMES.map((name) => [name, defaultsOf(settingsOf(name))]),
  ) as unknown as StationSettings;
  const root = defaultsOf(ROOT_SETTINGS) as RootSettings;
  return { version: RECIPE_VERSION, seed, ...root, stations, decisions: {} };
}

/** Everything wrong with a would-be recipe of any version, one plain line each; empty when it is valid. */
export const recipeProblems = (value: unknown): string[] => read(value).problems;

/** A recipe as it was written, and everything wrong with it. */
function read(value: unknown): { recipe: Recipe | null; problems: string[] } {
  const { success, output, issues } = v.safeParse(recipeSchema, migrated(value));
  if (success) return { recipe: output as unknown as Recipe, problems: [] };
  return { recipe: null, problems: wordsOf(value, issues) };
}

function wordsOf(value: unknown, issues: v.InferIssue<typeof recipeSchema>[]): string[] {
  if (value && typeof value === 'object' && 'version' in value) {
    const { version } = value as { version: unknown };
    if (typeof version === 'number' && version > RECIPE_VERSION) {
      return [
        `The recipe has version ${version}; this program knows versions up to ${RECIPE_VERSION}. Update the program.`,
      ];
    }
  }
  return issues.map((issue) => {
    const path = v.getDotPath(issue) ?? '';
    if (issue.type === 'strict_object' && issue.expected === 'never') {
      return `“${path}” is not a setting this program knows; remove it or correct its spelling.`;
    }
    if (issue.received === 'undefined') return `“${path}” is missing.`;
    if (issue.type === 'strict_object')
      return `“${path || 'the recipe'}” must be an object { … }, not ${issue.received}.`;
    return `“${path}” ${issue.message.startsWith('must') ? issue.message : `is invalid: ${issue.message}`}; it is ${issue.received}.`;
  });
}

/**
 * A valid recipe of the present version with all defaults filled in, from one of any version.
 * @throws Problem `bad_recipe` that lists what is wrong.
 */
export function parseRecipe(value: unknown): Recipe {
  const { recipe, problems } = read(value);
  if (!recipe) {
    throw new Problem(
      'bad_recipe',
      `The recipe cannot be used: ${problems.join(' ')}`,
      'zesty stations lists every setting with its range.',
    );
  }
  return recipe;
}
