import * as v from 'valibot';
import type { Recipe } from '../recipe/recipe.ts';
import type { SettingValue } from '../settings/kinds.ts';
import { STATION_NAMES, type StationName } from '../stations/index.ts';

const text = v.pipe(v.string(), v.maxLength(1000));
const settingSchema = v.strictObject({
  station: v.picklist(STATION_NAMES),
  key: text,
  /** What the setting was, and what it is by the proposal. */
  before: v.unknown(),
  after: v.unknown(),
});
const settingsSchema = v.pipe(v.array(settingSchema), v.maxLength(50));

/** How a proposal is stored. */
export const proposalSchema = v.strictObject({
  /** What it is about; one of each in a setup. */
  id: text,
  /** Where it is seen and changed. */
  station: v.picklist(STATION_NAMES),
  title: text,
  reason: text,
  settings: settingsSchema,
  /** It cannot be measured and is to be confirmed. */
  isGuess: v.optional(v.boolean()),
  /** Answers to the same question, the best first. */
  alternatives: v.optional(
    v.pipe(
      v.array(v.strictObject({ title: text, swatch: v.optional(text), settings: settingsSchema })),
      v.maxLength(10),
    ),
  ),
});

/** One setting of a station, as it was and as it is proposed. */
export type ProposedSetting = v.InferOutput<typeof settingSchema>;

/** What the measurements of a photo propose: named, with one line of reason, undone by putting `before` back. */
export type SetupProposal = v.InferOutput<typeof proposalSchema>;

/** Settings of one station as they are, and the values they are to get. */
export function settingsTo(
  recipe: Recipe,
  station: StationName,
  values: Record<string, SettingValue>,
): ProposedSetting[] {
  const now = recipe.stations[station] as Record<string, SettingValue>;
  return Object.entries(values).map(([key, after]) => ({ station, key, before: now[key], after }));
}

/** Proposed settings of one station from the values they get; those that already have them are left out. */
export const proposedSettings = (...given: Parameters<typeof settingsTo>): ProposedSetting[] =>
  settingsTo(...given).filter(({ before, after }) => JSON.stringify(before) !== JSON.stringify(after));

/** A recipe with proposed settings applied, or taken back. */
export function withProposed(
  recipe: Recipe,
  settings: readonly ProposedSetting[],
  which: 'before' | 'after' = 'after',
): Recipe {
  const stations = { ...recipe.stations } as Record<string, object>;
  for (const one of settings) {
    stations[one.station] = { ...stations[one.station], [one.key]: one[which] };
  }
  return { ...recipe, stations: stations as unknown as Recipe['stations'] };
}

/** Whether a recipe has the settings that are proposed. */
export const isApplied = (recipe: Recipe, settings: readonly ProposedSetting[]): boolean =>
  settings.every(({ station, key, after }) => {
    const now = recipe.stations[station] as Record<string, SettingValue>;
    return JSON.stringify(now[key]) === JSON.stringify(after);
  });
