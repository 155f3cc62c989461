import { MASK_PARTS, type Mask, newItem, newRecipe, RECIPE_VERSION } from '@zesty-tile/core';
import { expect } from 'chai';
import { keepDraft, readDraft } from '../src/bench/draft.ts';
import { isSameWork } from '../src/bench/save.ts';
import { isSameSettings } from '../src/bench/steps.ts';

const mask: Mask = { id: 'moss', name: 'Moss', wetness: 0, parts: [newItem(MASK_PARTS, 'colour')] };

describe('what is saved of a recipe', () => {
  it('everything but its decisions: stations, masks and seed', () => {
    const recipe = newRecipe();
    const { gauge } = recipe.stations;
    expect(isSameWork(recipe, JSON.parse(JSON.stringify(recipe)))).to.equal(true);
    expect(isSameWork(recipe, { ...recipe, decisions: { join: { key: 'k', data: {} } } })).to.equal(true);
    for (const changed of [
      { ...recipe, seed: 2 },
      { ...recipe, masks: [mask] },
      { ...recipe, stations: { ...recipe.stations, gauge: { ...gauge, exposure: 1 } } },
    ]) {
      expect(isSameWork(recipe, changed)).to.equal(false);
      expect(isSameSettings(recipe, changed)).to.equal(false);
    }
    expect(
      isSameWork({ ...recipe, masks: [mask] }, { ...recipe, masks: [{ ...mask, name: 'Lichen' }] }),
    ).to.equal(false);
  });
});

describe('drafts', () => {
  const stored = new Map<string, string>();
  before(() => {
    Object.defineProperty(globalThis, 'localStorage', {
      configurable: true,
      value: {
        getItem: (key: string) => stored.get(key) ?? null,
        setItem: (key: string, value: string) => stored.set(key, value),
        removeItem: (key: string) => stored.delete(key),
      },
    });
  });
  after(() => {
    Reflect.deleteProperty(globalThis, 'localStorage');
  });

  it('come back as they were kept', () => {
    const draft = { base: 3, recipe: { ...newRecipe(), masks: [mask] } };
    keepDraft('tile', draft);
    expect(readDraft('tile')).to.deep.equal(draft);
  });

  it('of an earlier version are brought to the present one, and damaged ones are no drafts', () => {
    const old = { version: 1, seed: 1, stations: { gauge: { zones: [mask] } } };
    stored.set('zesty draft old', JSON.stringify({ base: 3, recipe: old }));
    const draft = readDraft('old')!;
    expect(draft.recipe.version).to.equal(RECIPE_VERSION);
    expect(draft.recipe.masks).to.deep.equal([mask]);
    stored.set(
      'zesty draft bad',
      JSON.stringify({ base: 3, recipe: { version: 2, stations: { mirror: {} } } }),
    );
    expect(readDraft('bad')).to.equal(null);
    stored.set('zesty draft cut', '{"base":3,"rec');
    expect(readDraft('cut')).to.equal(null);
    expect(readDraft('none')).to.equal(null);
  });
});
