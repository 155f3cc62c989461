import { expect } from 'chai';
import { MOST_POINTS, thinned } from '../../src/strokes/stroke.ts';

describe('a way that is longer than a stroke may be', () => {
  it('keeps its ends and runs on evenly between them', () => {
    const way = Array.from({ length: 3 * MOST_POINTS + 5 }, (_, k) => k);
    const kept = thinned(way);
    expect(kept).to.have.length(MOST_POINTS);
    expect([kept[0], kept.at(-1)]).to.deep.equal([0, way.length - 1]);
    for (let k = 1; k < kept.length; k++) expect(kept[k] - kept[k - 1]).to.be.within(3, 4);
  });

  it('stays as it is where it is short enough', () => {
    const way = [5, 3, 8];
    expect(thinned(way)).to.deep.equal(way);
  });
});
