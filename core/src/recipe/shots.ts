import { Problem } from '../problem.ts';
import type { ShotsDecision } from '../stations/source/shots/decision.ts';
import type { LightDirection } from '../stations/source/shots/light.ts';
import type { PictureRef } from '../tile/given.ts';
import type { Recipe } from './recipe.ts';

/** Why the shots of a recipe could not be solved, once that is settled; null where they could, or there are none. */
export function whyUnsolved({ decisions }: Pick<Recipe, 'decisions'>): Problem | null {
  const refused = (decisions.source?.data as ShotsDecision | undefined)?.refused;
  return refused ? new Problem(refused.code, refused.message, refused.hint) : null;
}

/**
 * The recipe of a tile that is measured from several shots: `shots` beside the photo, and where the light of each comes from, the photo's own first, null
 * where it is not known. Height is read from the normals, and nothing is evened out. `chosen` are settings that stay as they are, as
 * “station.key”.
 */
export function withShots(
  recipe: Recipe,
  shots: readonly PictureRef[],
  directions: readonly (LightDirection | null)[],
  chosen: ReadonlySet<string> = new Set(),
): Recipe {
  const { source, even, relief } = recipe.stations;
  const isTyped = directions.some((one) => one !== null);
  const free = <T extends object>(station: string, values: T): Partial<T> =>
    Object.fromEntries(
      Object.entries(values).filter(([key]) => !chosen.has(`${station}.${key}`)),
    ) as Partial<T>;
  return {
    ...recipe,
    stations: {
      ...recipe.stations,
      source: {
        ...source,
        shots: [...shots],
        ...(isTyped
          ? free('source', { lightsFrom: 'typed' as const, lightDirections: [...directions] })
          : {}),
      },
      even: { ...even, ...free('even', { amount: 0 }) },
      relief: { ...relief, ...free('relief', { heightFrom: 'normals' as const }) },
    },
  };
}
