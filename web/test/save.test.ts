import {
  detachSheets,
  MASK_PARTS,
  type Mask,
  newItem,
  newRecipe,
  RECIPE_VERSION,
  type Recipe,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { keepDraft, readDraft, sheetsForDraft } from '../src/bench/draft.ts';
import { isSameWork } from '../src/bench/save.ts';
import { isSameSettings } from '../src/bench/steps.ts';

const mask: Mask = { id: 'moss', name: 'Moss', wetness: 0, parts: [newItem(MASK_PARTS, 'colour')] };

const nothing = () => false;
const unknown = () => undefined;

/** A recipe with so many strokes in a mask. */
function painted(count: number): Recipe {
  const strokes = Array.from({ length: count }, (_, k) => ({
    points: [[k / count, 0.5] as [number, number]],
    radius: 0.02,
    softness: 0.5,
    erase: false,
  }));
  const part = { ...newItem(MASK_PARTS, 'brush'), strokes } as Mask['parts'][number];
  return { ...newRecipe(), masks: [{ ...mask, parts: [part] }] };
}

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
    keepDraft('tile', draft, nothing);
    expect(readDraft('tile', unknown)).to.deep.equal(draft);
  });

  it('hold the strokes that the server has not got, and find the others', () => {
    const recipe = painted(40);
    const sheets = detachSheets(recipe).sheets;
    const [first, second] = sheets.keys();
    keepDraft('painted', { base: 3, recipe }, (hash) => hash === first);
    const text = stored.get('zesty draft painted')!;
    expect(text).to.include(second);
    expect(sheetsForDraft('painted')).to.deep.equal([first]);
    expect(JSON.parse(text).sheets[second]).to.have.length(8);
    expect(Object.keys(JSON.parse(text).sheets)).to.deep.equal([second]);
    expect(readDraft('painted', (hash) => sheets.get(hash))).to.deep.equal({ base: 3, recipe });
    expect(readDraft('painted', unknown)).to.equal(null);
  });

  it('of an earlier version are brought to the present one, and damaged ones are no drafts', () => {
    const old = { version: 1, seed: 1, stations: { gauge: { zones: [mask] } } };
    stored.set('zesty draft old', JSON.stringify({ base: 3, recipe: old }));
    const draft = readDraft('old', unknown)!;
    expect(draft.recipe.version).to.equal(RECIPE_VERSION);
    expect(draft.recipe.masks).to.deep.equal([mask]);
    stored.set(
      'zesty draft bad',
      JSON.stringify({ base: 3, recipe: { version: 2, stations: { mirror: {} } } }),
    );
    expect(readDraft('bad', unknown)).to.equal(null);
    stored.set('zesty draft cut', '{"base":3,"rec');
    expect(readDraft('cut', unknown)).to.equal(null);
    expect(readDraft('none', unknown)).to.equal(null);
  });
});
