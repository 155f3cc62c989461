import {
  attachSheets,
  detachSheets,
  MASK_PARTS,
  newItem,
  newRecipe,
  parseRecipe,
  type Recipe,
  type Sheet,
  sheetsIn,
} from '@zesty-tile/core';
import { expect } from 'chai';

const stroke = (k: number) => ({
  points: [
    [k / 1000, 0.2],
    [k / 1000, 0.4],
  ] as [number, number][],
  radius: 0.02,
  softness: 0.3,
});
const leave = (count: number) => Array.from({ length: count }, (_, k) => ({ ...stroke(k), erase: false }));
const heal = (k: number) => ({
  kind: 'heal' as const,
  ...stroke(k),
  opacity: 1,
  offset: [0.2, 0.1] as [number, number],
});

function painted(count: number): Recipe {
  const recipe = newRecipe();
  const { join, even } = recipe.stations;
  const brush = {
    ...newItem(MASK_PARTS, 'brush'),
    by: 'brush' as const,
    how: 'and' as const,
    strokes: leave(count),
  };
  return {
    ...recipe,
    masks: [{ id: 'moss', name: 'Moss', wetness: 0, parts: [newItem(MASK_PARTS, 'colour'), brush] }],
    stations: {
      ...recipe.stations,
      even: { ...even, leave: leave(3) },
      join: { ...join, repairs: Array.from({ length: count }, (_, k) => heal(k)) },
    },
  };
}

const finder = (sheets: Map<string, Sheet>) => (hash: string) => sheets.get(hash)!;

describe('stroke sheets', () => {
  it('leave no stroke in the stored recipe, and bring all of them back', () => {
    const recipe = painted(70);
    const { stored, sheets } = detachSheets(recipe);
    const text = JSON.stringify(stored);
    expect(text).to.not.include('"radius"');
    expect(text.length).to.be.below(0.5 * JSON.stringify(recipe).length);
    expect([...sheetsIn(JSON.parse(text))].sort()).to.deep.equal([...sheets.keys()].sort());
    const back = attachSheets(JSON.parse(text), finder(sheets));
    expect(parseRecipe(back)).to.deep.equal(recipe);
  });

  it('one more stroke makes one new sheet; equal strokes share theirs', () => {
    const [before, after] = [detachSheets(painted(70)), detachSheets(painted(71))];
    const added = [...after.sheets.keys()].filter((hash) => !before.sheets.has(hash));
    // One of the repairs, one of the mask.
    expect(added).to.have.length(2);
    expect(detachSheets(painted(70)).sheets.size).to.equal(before.sheets.size);
  });

  it('a recipe that is stored whole comes back as it was', () => {
    const recipe = painted(2);
    const none = () => {
      throw new Error('no sheet is asked for');
    };
    expect(attachSheets(recipe, none)).to.deep.equal(recipe);
    expect(sheetsIn(recipe)).to.deep.equal([]);
    expect(detachSheets(newRecipe()).sheets.size).to.equal(0);
  });
});
