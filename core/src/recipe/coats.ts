import type { Mask } from '../masks/mask.ts';
import type { Coat, CoatGroup } from '../stations/coats/settings.ts';
import type { Recipe } from './recipe.ts';

/** An id that is not taken: the wanted one, or one with a number. */
function freeId(wanted: string, taken: Set<string>): string {
  let id = wanted;
  for (let k = 2; taken.has(id); k++) id = `${wanted.slice(0, 34)}-${k}`;
  taken.add(id);
  return id;
}

/**
 * A recipe with coats of another tile on top of its own, in groups of their own: ids that are taken are changed, and zones that
 * the coats are selected by come along where the recipe has none of that id.
 */
export function withCoatsAdded(
  recipe: Recipe,
  added: { stack: readonly Coat[]; groups: readonly CoatGroup[] },
  zones: readonly Mask[] = [],
): Recipe {
  const { coats } = recipe.stations;
  const groupIds = new Set(coats.groups.map(({ id }) => id));
  const ids = new Set(coats.stack.map(({ id }) => id));
  const renamed = new Map(added.groups.map(({ id }) => [id, freeId(id, groupIds)]));
  const within = (id: string) => renamed.get(id) ?? '';
  const groups = added.groups.map((group) => ({
    ...group,
    id: within(group.id),
    within: within(group.within),
  }));
  const stack = added.stack.map((coat) => ({ ...coat, id: freeId(coat.id, ids), group: within(coat.group) }));
  const used = new Set(
    [...stack, ...groups].flatMap(({ parts }) =>
      parts.flatMap((part) => (part.by === 'zone' ? [part.zone] : [])),
    ),
  );
  const missing = zones.filter(({ id }) => used.has(id) && !recipe.masks.some((mask) => mask.id === id));
  return {
    ...recipe,
    masks: [...recipe.masks, ...missing],
    stations: {
      ...recipe.stations,
      coats: { stack: [...coats.stack, ...stack], groups: [...coats.groups, ...groups] },
    },
  };
}
