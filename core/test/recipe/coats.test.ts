import { isTileAlready, newRecipe, parseRecipe, type Recipe, withCoatsAdded } from '@zesty-tile/core';
import { expect } from 'chai';
import { coat } from '../stations/coats/making.ts';

const GROUP = { id: 'edges', name: 'Edges', visible: true, strength: 1, within: '', parts: [] };

function withZone(): Recipe {
  const recipe = newRecipe();
  const zone = { id: 'joints', name: 'Joints', wetness: 0, parts: [] };
  return { ...recipe, masks: [zone] };
}

describe('coats of one tile on another', () => {
  it('come on top, under ids of their own, in groups of their own', () => {
    const own = coat([{ by: 'constant' }], [], { id: 'a', group: 'edges' });
    const added = {
      stack: [coat([], [], { id: 'a', group: 'edges' }), coat([], [], { id: 'b', group: 'gone' })],
      groups: [GROUP],
    };
    const recipe = newRecipe();
    recipe.stations.coats = { stack: [own], groups: [GROUP] };
    const { stack, groups } = withCoatsAdded(recipe, added).stations.coats;
    expect(stack.map(({ id, group }) => [id, group])).to.deep.equal([
      ['a', 'edges'],
      ['a-2', 'edges-2'],
      ['b', ''],
    ]);
    expect(groups.map(({ id }) => id)).to.deep.equal(['edges', 'edges-2']);
    // What was there is as it was, and the whole is a valid recipe.
    expect(stack[0]).to.equal(own);
    expect(() => parseRecipe(withCoatsAdded(newRecipe(), added))).to.not.throw();
  });

  it('bring the zones along that they are selected by, where there are none of that id', () => {
    const from = withZone();
    const stack = [coat([], [{ by: 'zone', zone: 'joints' }])];
    expect(
      withCoatsAdded(newRecipe(), { stack, groups: [] }, from.masks).masks.map(({ id }) => id),
    ).to.deep.equal(['joints']);
    expect(withCoatsAdded(from, { stack, groups: [] }, from.masks).masks).to.have.length(1);
    expect(withCoatsAdded(newRecipe(), { stack: [coat([])], groups: [] }, from.masks).masks).to.have.length(
      0,
    );
  });
});

describe('a tile that is one already', () => {
  it('is neither cropped, evened nor joined', () => {
    const recipe = newRecipe();
    expect(isTileAlready(recipe)).to.equal(false);
    const { square, even, join } = recipe.stations;
    const plain = {
      ...recipe.stations,
      square: { ...square, share: 1 },
      even: { ...even, amount: 0 },
      join: { ...join, method: 'none' as const },
    };
    expect(isTileAlready({ ...recipe, stations: plain })).to.equal(true);
    expect(isTileAlready({ ...recipe, stations: { ...plain, even } })).to.equal(false);
  });
});
