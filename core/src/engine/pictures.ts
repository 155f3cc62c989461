import type { PictureRef } from '../stations/given.ts';
import type { Recipe } from './recipe.ts';

/** Pictures a recipe asks for beside its source, by what each is there for: given maps, and pictures that tile by themselves. */
export function picturesOf({ stations }: Recipe): Record<string, PictureRef> {
  const { source, relief, finish } = stations;
  const all = { ...source.given, detail: relief.detailMap, grey: finish.greyMap };
  return Object.fromEntries(
    Object.entries(all).flatMap(([name, ref]) => (ref ? [[name, ref] as const] : [])),
  );
}
