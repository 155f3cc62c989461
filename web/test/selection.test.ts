import { expect } from 'chai';
import { amongShown, NOTHING_SELECTED, ranged, toggled } from '../src/yard/selection/selection.ts';

const SHOWN = ['a', 'b', 'c', 'd', 'e'];

describe('tiles selected together', () => {
  it('are added and taken out one by one; the one that was chosen alone is one of them', () => {
    const two = toggled(NOTHING_SELECTED, 'c', 'a');
    expect(two.ids).to.deep.equal(['a', 'c']);
    expect(toggled(two, 'a', 'a').ids).to.deep.equal(['c']);
    expect(toggled(NOTHING_SELECTED, 'c', null).ids).to.deep.equal(['c']);
  });

  it('are a range from the last one, up or down, in the order they are shown', () => {
    const from = toggled(NOTHING_SELECTED, 'c', null);
    expect(ranged(from, 'e', null, SHOWN).ids).to.deep.equal(['c', 'd', 'e']);
    expect(ranged(from, 'a', null, SHOWN).ids).to.deep.equal(['a', 'b', 'c']);
    const again = ranged(ranged(from, 'e', null, SHOWN), 'b', null, SHOWN);
    expect(again.ids, 'the same start').to.deep.equal(['b', 'c']);
  });

  it('are a range from the chosen tile where none was selected, else the one alone', () => {
    expect(ranged(NOTHING_SELECTED, 'd', 'b', SHOWN).ids).to.deep.equal(['b', 'c', 'd']);
    expect(ranged(NOTHING_SELECTED, 'd', null, SHOWN).ids).to.deep.equal(['d']);
    expect(ranged({ ids: [], anchor: 'gone' }, 'd', 'gone too', SHOWN).ids).to.deep.equal(['d']);
  });

  it('are none that are not shown', () => {
    const all = { ids: ['a', 'x', 'c'], anchor: 'a' };
    expect(amongShown(all, SHOWN).ids).to.deep.equal(['a', 'c']);
    const kept = { ids: ['a'], anchor: 'a' };
    expect(amongShown(kept, SHOWN)).to.equal(kept);
  });
});
