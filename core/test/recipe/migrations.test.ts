import { newRecipe, parseRecipe, parseSaved, RECIPE_VERSION, recipeProblems } from '@zesty-tile/core';
import { expect } from 'chai';

const zone = {
  id: 'moss',
  name: 'Moss',
  wetness: 0.2,
  parts: [{ by: 'colour', how: 'and', colour: '#4c5a2a', reach: 0.08, softness: 0.3 }],
};

describe('recipes of version 1', () => {
  it('open: their zones become masks at the root, and everything else stays', () => {
    const zoneTones = [{ zone: 'moss', line: 'moss', ownLine: null, exposure: 0.5, contrast: 1 }];
    const old = { version: 1, seed: 4, stations: { gauge: { zones: [zone], zoneTones, exposure: 1 } } };
    const recipe = parseRecipe(old);
    expect(recipe.version).to.equal(RECIPE_VERSION);
    expect(recipe.seed).to.equal(4);
    expect(recipe.masks).to.deep.equal([zone]);
    expect(recipe.stations.gauge).to.deep.equal({
      ...newRecipe().stations.gauge,
      zoneTones,
      exposure: 1,
    });
    expect(parseRecipe(recipe)).to.deep.equal(recipe);
    expect(old.stations.gauge.zones).to.deep.equal([zone]);
  });

  it('say what is wrong in them as those of the present version do', () => {
    expect(recipeProblems({ version: 1, stations: { gauge: { zones: [{ id: 'a' }] } } })[0]).to.match(
      /masks\.0\.parts/,
    );
    expect(recipeProblems({ version: 1, stations: { gauge: 3 } })[0]).to.include('stations.gauge');
    expect(recipeProblems({ version: 1, stations: { mirror: {} } })[0]).to.include('“stations.mirror”');
    // The zones have moved: in a recipe of the present version they are no setting of Gauge.
    expect(recipeProblems({ version: 2, stations: { gauge: { zones: [] } } })[0]).to.match(/zones.*spelling/);
  });

  it('saved for other tiles open too: they were the stations alone', () => {
    expect(parseSaved({ gauge: { zones: [zone], exposure: 1 } })).to.deep.equal({
      version: RECIPE_VERSION,
      masks: [zone],
      stations: { gauge: { exposure: 1 } },
    });
    const saved = { version: RECIPE_VERSION, masks: [zone], stations: {} };
    expect(parseSaved(saved)).to.deep.equal(saved);
  });
});
