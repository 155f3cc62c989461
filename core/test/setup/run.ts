import { Engine, newRecipe, type Raster, type Recipe, type Setup, setUp } from '@zesty-tile/core';
import { hostOf, pixelsOf } from '../engine/host.ts';

/** A picture that is set up, and the engine that measured it. */
export async function setUpOf(
  picture: Raster,
  recipe: Recipe = newRecipe(),
  chosen?: ReadonlySet<string>,
): Promise<Setup & { verdictStates(): Promise<Record<string, string>> }> {
  const { width, height } = picture;
  const engine = new Engine(hostOf(pixelsOf(picture)), 400e6);
  const source = { sha256: '5'.repeat(64), width, height };
  const setup = await setUp(engine, { recipe, source, chosen });
  return {
    ...setup,
    async verdictStates() {
      const { size } = setup.recipe.stations.square;
      const { verdicts } = await engine.evaluate({ recipe: setup.recipe, source, size });
      return Object.fromEntries(Object.entries(verdicts).map(([name, verdict]) => [name, verdict!.state]));
    },
  };
}
