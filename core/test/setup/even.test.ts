import { Engine, newRecipe, type Raster, type Recipe } from '@zesty-tile/core';
import { expect } from 'chai';
import { proposeEven } from '../../src/setup/even.ts';
import { SetupScene } from '../../src/setup/scene.ts';
import { hostOf, pixelsOf } from '../engine/host.ts';
import { seeded } from '../fields.ts';
import { MADE_SOURCES, photographed } from './sources.ts';

const KINDS = Object.keys(MADE_SOURCES);
const TILES = 30;

/** A small photo of one of the kinds, with light that falls off by some share. */
function smallPhoto(k: number): Raster {
  const made = MADE_SOURCES[KINDS[k % KINDS.length]];
  const slope = seeded(k + 1)() * 0.6;
  return photographed({ ...made, width: 320, height: 280, slope });
}

async function driftOf(
  engine: Engine,
  recipe: Recipe,
  source: { sha256: string; width: number; height: number },
) {
  const { verdicts } = await engine.evaluate({ recipe, source, size: 256, until: 'even' });
  return verdicts.even!.figures.find(({ id }) => id === 'after')!.value;
}

describe('proposing how much of the light is removed', () => {
  it('never leaves more drift than the photo has: thirty photos', async () => {
    let improved = 0;
    for (let k = 0; k < TILES; k++) {
      const picture = smallPhoto(k);
      const engine = new Engine(hostOf(pixelsOf(picture)), 200e6);
      const source = { sha256: `${k}`.padStart(64, '0'), width: picture.width, height: picture.height };
      const recipe = newRecipe();
      recipe.stations.square.size = 256;
      const scene = new SetupScene(engine, recipe, source);
      for (const { settings } of await proposeEven(scene)) scene.apply(settings);
      const untouched = structuredClone(recipe);
      untouched.stations.even.amount = 0;
      const [from, to] = [
        await driftOf(engine, untouched, source),
        await driftOf(engine, scene.recipe, source),
      ];
      expect(to, `photo ${k}`).to.be.at.most(from + 1e-6);
      if (to < 0.8 * from) improved++;
    }
    expect(improved).to.be.above(10);
  });
});
