import { CHART } from '@zesty-tile/core';
import { expect } from 'chai';
import { isSearched } from '../src/charts/line-words.ts';

const found = (search: string) => CHART.lines.filter((line) => isSearched(line, search)).map(({ id }) => id);

describe('searching the chart', () => {
  for (const [search, id] of [
    ['brick', 'fired-clay-red'],
    ['timber', 'wood-pale'],
    ['wood', 'wood-dark'],
    ['sandstone', 'limestone'],
    ['fabric', 'cloth-natural'],
    ['cobble', 'granite'],
    ['grass', 'grass-green'],
    [' Lawn ', 'grass-green'],
    ['concrete', 'concrete-worn'],
    ['rock', 'basalt'],
    ['metal', 'copper'],
  ]) {
    it(`finds ${id} by “${search}”`, () => expect(found(search)).to.include(id));
  }

  it('finds nothing where no line has the word, and everything without one', () => {
    expect(found('zeppelin')).to.deep.equal([]);
    expect(found('')).to.have.length(CHART.lines.length);
  });

  it('has the metals by name, and every line once', () => {
    const metals = CHART.lines.filter(({ kind }) => kind === 'metal').map(({ name }) => name);
    expect(metals).to.deep.equal([...metals].sort());
    expect(new Set(CHART.lines.map(({ name }) => name)).size).to.equal(CHART.lines.length);
  });
});
