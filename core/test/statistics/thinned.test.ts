import { expect } from 'chai';
import { histogramPercentiles } from '../../src/statistics/histogram.ts';
import { readStep, thinned } from '../../src/statistics/thinned.ts';
import { noisePlane } from '../fields.ts';

describe('figures of large planes', () => {
  it('are read from all of two million values, and from about a million of more', () => {
    for (const edge of [64, 512, 1024]) expect(readStep(edge * edge)).to.equal(1);
    for (const edge of [1448, 1600, 2048, 4096, 8192]) {
      const step = readStep(edge * edge);
      const read = Math.ceil(edge ** 2 / step);
      expect(step % 2).to.equal(1);
      expect(read).to.be.within(2 ** 19, 2 ** 21);
    }
    const small = noisePlane(1000, 1);
    expect(thinned(small)).to.equal(small);
  });

  it('give every column its turn', () => {
    for (const edge of [2048, 4096]) {
      const columns = new Set<number>();
      const step = readStep(edge * edge);
      for (let i = 0; i < edge * edge; i += step) columns.add(i % edge);
      expect(columns.size).to.equal(edge);
    }
  });

  it('come out as those of the whole', () => {
    const edge = 2048;
    const waves = noisePlane(edge * edge, 5).map((v, i) => v / 4 + Math.sin((i % edge) / 40));
    const ranks = [0.5, 2, 50, 98, 99.5];
    const some = histogramPercentiles(thinned(waves), ranks);
    const all = histogramPercentiles(waves, ranks);
    for (const [k, value] of some.entries()) expect(value).to.be.closeTo(all[k], 0.01);
  });
});
