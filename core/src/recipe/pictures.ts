import { STATIONS } from '../stations/index.ts';
import type { AnyStation } from '../stations/station.ts';
import type { PictureRef } from '../tile/given.ts';
import type { Recipe } from './recipe.ts';

/** Pictures a recipe refers to beside its source, by what each is for: supplied maps, and pictures that tile by themselves. */
export function picturesOf({ stations }: Pick<Recipe, 'stations'>): Record<string, PictureRef> {
  const all = Object.values(STATIONS as Record<string, AnyStation>).flatMap(({ name, pictures }) =>
    Object.entries(pictures?.(stations[name as keyof typeof stations]) ?? {}),
  );
  return Object.fromEntries(all.flatMap(([name, ref]) => (ref ? [[name, ref] as const] : [])));
}
