import { expect } from 'chai';
import { steadier } from '../../src/strokes/steady.ts';

/** A pointer that goes to the right by `step` every 8 ms and trembles up and down by `tremble`. */
const trembling = (count: number, step: number, tremble: number): [[number, number], number][] =>
  Array.from({ length: count }, (_, k) => [[step * k, k % 2 === 0 ? tremble : -tremble], 8 * k]);

const led = (how: { string: number; smooth: number }, track: [[number, number], number][]) => {
  const steady = steadier(how);
  return track.map(([place, ms]) => steady(place, ms));
};

describe('a steadied hand', () => {
  it('without either goes where the pointer goes', () => {
    const track = trembling(20, 0.01, 0.004);
    expect(led({ string: 0, smooth: 0 }, track)).to.deep.equal(track.map(([place]) => place));
  });

  it('on a string stays until it is taut, and is never farther behind than its length', () => {
    const track = trembling(40, 0.01, 0);
    const way = led({ string: 0.055, smooth: 0 }, track);
    for (const [k, [x]] of way.entries()) {
      expect(track[k][0][0] - x).to.be.within(0, 0.055 + 1e-12);
      if (k <= 5) expect(x).to.equal(0);
    }
    expect(way.at(-1)![0]).to.be.closeTo(0.39 - 0.055, 1e-9);
  });

  it('smooths a tremble, more where it is asked for more, and keeps up with a fast hand', () => {
    const spread = (smooth: number, step: number) => {
      const way = led({ string: 0, smooth }, trembling(120, step, 0.004)).slice(40);
      return Math.max(...way.map(([, y]) => Math.abs(y)));
    };
    expect(spread(0.5, 0.0002)).to.be.below(0.003);
    expect(spread(1, 0.0002)).to.be.below(spread(0.5, 0.0002));
    const behind = (step: number) => {
      const track = trembling(120, step, 0);
      return (track[119][0][0] - led({ string: 0, smooth: 1 }, track)[119][0]) / step;
    };
    expect(behind(0.02)).to.be.below(behind(0.001));
  });
});
