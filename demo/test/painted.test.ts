import { sha256Of, sourceHost } from '@zesty-tile/codecs';
import { Engine, recipeProblems, seamFigures } from '@zesty-tile/core';
import { expect } from 'chai';
import { makeMissingPictures } from '../src/generate.ts';
import { PAINTED } from '../src/painted/painted.ts';

const SIZE = 256;

describe('painted tiles', () => {
  before(() => makeMissingPictures(['pamments', 'copper']));

  for (const { name, make } of PAINTED) {
    it(`${name}: a sound recipe, which meets itself, with nothing to look at in its coats`, async () => {
      const { source: bytes, maps, recipe } = await make();
      expect(recipeProblems(recipe)).to.deep.equal([]);
      const files = new Map([bytes, ...maps].map((file) => [sha256Of(file), file]));
      const isPhoto = recipe.stations.square.share !== 1;
      const sides = isPhoto ? { width: 1600, height: 1200 } : { width: 1024, height: 1024 };
      const engine = new Engine(
        sourceHost(async ({ sha256 }) => files.get(sha256)!),
        2 ** 29,
      );
      const { surface, verdicts } = await engine.evaluate({
        recipe,
        source: { sha256: sha256Of(bytes), ...sides },
        size: SIZE,
        until: 'coats',
      });
      expect(verdicts.coats?.state, verdicts.coats?.advice).to.equal('fine');
      const { seamX, seamY } = seamFigures(surface!.colour);
      expect(Math.max(seamX, seamY)).to.be.below(1.5);
    });
  }
});
