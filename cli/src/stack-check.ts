import {
  type Coat,
  type CoatGroup,
  coatsInUse,
  newRecipe,
  Problem,
  parseRecipe,
  picturesOf,
  recipeProblems,
} from '@zesty-tile/core';
import { readJson } from './read.ts';

/** A stack as it may be written: coats alone, or with their groups, or a saved recipe that has them. */
function coatsIn(value: unknown): object {
  if (Array.isArray(value)) return { stack: value };
  const { stations } = (value ?? {}) as { stations?: { coats?: object } };
  return stations?.coats ?? (value as object);
}

/** What the coats need beside the tile: zones, supplied maps, pictures. */
function needsOf({ stack, groups }: { stack: readonly Coat[]; groups: readonly CoatGroup[] }): string[] {
  const found = new Set<string>();
  for (const { parts } of [...stack, ...groups]) {
    for (const part of parts) {
      if (part.by === 'zone') found.add(`the zone “${part.zone}”`);
      if (part.by === 'range' && part.map === 'supplied') found.add(`a supplied ${part.supplied} map`);
    }
  }
  for (const output of stack.flatMap(({ outputs }) => outputs)) {
    if (output.by === 'ramp' && output.driver === 'supplied') found.add(`a supplied ${output.supplied} map`);
  }
  return [...found];
}

/** `zesty stack check`: says what is wrong with a stack of coats, or what it holds and needs. */
export async function stackCheck(file: string): Promise<void> {
  const recipe = newRecipe();
  const coats = { ...recipe.stations.coats, ...coatsIn(await readJson(file)) };
  const whole = { ...recipe, stations: { ...recipe.stations, coats } };
  const problems = recipeProblems(whole);
  if (problems.length > 0) {
    throw new Problem('bad_stack', problems.join(' '), 'zesty stations lists every setting.');
  }
  const checked = parseRecipe(whole);
  const { stack, groups } = checked.stations.coats;
  const used = coatsInUse(checked.stations.coats).length;
  const lines = [
    `The stack is valid: ${stack.length} ${stack.length === 1 ? 'coat' : 'coats'}, ${used} with an effect.`,
  ];
  const ids = new Set(groups.map(({ id }) => id));
  for (const { name, group } of stack) {
    if (group && !ids.has(group))
      lines.push(`“${name}” is in a group that is not there (${group}): it counts by itself.`);
  }
  const needs = needsOf(checked.stations.coats);
  if (needs.length > 0) lines.push(`Where a tile has them it uses ${needs.join(', ')}.`);
  const pictures = Object.entries(picturesOf(checked));
  for (const [what, { sha256, name }] of pictures) lines.push(`Picture of ${what}: ${name ?? sha256}.`);
  process.stdout.write(`${lines.join('\n')}\n`);
}
