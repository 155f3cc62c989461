import { CHART } from '@zesty-tile/core';
import { expect } from 'chai';
import { METALS, metalF0 } from '../../../scripts/metals.ts';

describe('metals of the chart', () => {
  for (const [id, index] of Object.entries(METALS)) {
    it(`${id} has the reflectance that its optical constants give`, () => {
      const line = CHART.lines.find((one) => one.id === id)!;
      const found = metalF0(index);
      for (const [c, value] of [line.f0].flat().entries())
        expect(value, 'rgb'[c]).to.be.closeTo(found[c], 0.006);
    });
  }

  it('lie where such metals do: silver above all, gold and copper falling from red to blue', () => {
    const [gold, copper, silver] = ['gold', 'copper', 'silver'].map((id) => metalF0(METALS[id]));
    for (const [r, g, b] of [gold, copper]) {
      expect(r).to.be.above(g);
      expect(g).to.be.above(b);
    }
    expect(Math.min(...silver)).to.be.above(0.95);
    // A perfect reflector, whose index is without end, is white.
    for (const value of metalF0(() => [0, 1e6])) expect(value).to.be.closeTo(1, 1e-5);
  });
});
