import {
  assignSetting,
  newRecipe,
  Problem,
  parseRecipe,
  recipeProblems,
  type SettingsOf,
  STATIONS,
} from '@zesty-tile/core';
import { expect } from 'chai';

describe('recipe', () => {
  it('fills in every default', () => {
    expect(parseRecipe({ version: 1 })).to.deep.equal(newRecipe());
    const some = parseRecipe({ version: 1, stations: { square: { size: 512 } } });
    expect(some.stations.square).to.deep.equal({ ...newRecipe().stations.square, size: 512 });
  });

  it('has a default inside its own range for every setting of every station', () => {
    expect(recipeProblems(newRecipe())).to.deep.equal([]);
  });

  it('names what it does not know', () => {
    expect(recipeProblems({ version: 1, stations: { square: { sise: 512 } } })[0]).to.match(
      /“stations.square.sise”.*spelling/,
    );
    expect(recipeProblems({ version: 1, stations: { mirror: {} } })[0]).to.include('“stations.mirror”');
    expect(recipeProblems({ version: 1, colour: 2 })[0]).to.include('“colour”');
  });

  it('names what is out of range, of the wrong type, or missing', () => {
    expect(recipeProblems({ version: 1, stations: { square: { size: 1000 } } })[0]).to.match(
      /size.*256.*4096.*1000/,
    );
    expect(recipeProblems({ version: 1, stations: { even: { amount: 7 } } })[0]).to.match(
      /even.amount.*at most 1.*7/,
    );
    expect(recipeProblems({ version: 1, stations: { even: { amount: 'much' } } })[0]).to.match(/even.amount/);
    expect(recipeProblems({ stations: {} })[0]).to.match(/“version” is missing/);
    expect(recipeProblems(null)).to.have.length(1);
    expect(recipeProblems({ version: 9 })[0]).to.match(/version 9.*Update/);
  });

  it('leaves out a decision of another shape, to be made anew, and keeps the others', () => {
    const gauge = { key: 'k', data: { median: 0.2, gain: 1, contrast: 1, patches: null, zones: [] } };
    const decisions = { even: { key: 'k', data: [[1, 2]] }, gauge };
    const kept = parseRecipe({ version: 1, decisions }).decisions;
    expect(JSON.parse(JSON.stringify(kept))).to.deep.equal({ gauge });
  });

  it('takes one setting as text, as the command line does', () => {
    expect(assignSetting(newRecipe(), 'square.size', '2048').stations.square.size).to.equal(2048);
    expect(assignSetting(newRecipe(), 'gauge.fit', 'false').stations.gauge.fit).to.equal(false);
    expect(assignSetting(newRecipe(), 'relief.polarity', 'dark').stations.relief.polarity).to.equal('dark');
    for (const [path, text, words] of [
      ['square.size', '1000', '256, 512'],
      ['square.edgeMetres', 'wide', 'a number from'],
      ['square.edgeMetres', '', 'a number from'],
      ['gauge.fit', 'yes', 'true or false'],
      ['square.sise', '512', 'it has size'],
      ['mirror.size', '512', 'is not a setting'],
      ['size', '512', 'is not a setting'],
      ['gauge.toString', '1', 'has no setting'],
    ]) {
      expect(() => assignSetting(newRecipe(), path, text), path).to.throw(Problem, words);
    }
  });

  it('keeps the keys that scripts rely on', () => {
    const has = (station: keyof typeof STATIONS, ...keys: string[]) =>
      expect(STATIONS[station].settings as SettingsOf).to.include.all.keys(...keys);
    has('square', 'size', 'edgeMetres');
    has('even', 'amount');
    has('join', 'method', 'axes');
    has('gauge', 'line', 'fit');
    has('relief', 'depthMm', 'polarity', 'normalY');
    has('finish', 'line');
    has('crate', 'profile');
    for (const { settings } of Object.values(STATIONS)) {
      for (const [key, setting] of Object.entries(settings as SettingsOf)) {
        expect(setting.help, key).to.match(/\w+.*\.$/);
        expect(setting.type === 'number' ? setting.unit : '', key).not.to.match(/px|pixel/);
      }
    }
  });
});
