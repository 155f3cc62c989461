import type { SetupProposal } from '@zesty-tile/core';
import { expect } from 'chai';
import { setUpOf } from './run.ts';
import { MADE_SOURCES, photographed } from './sources.ts';

/** What must be found in a photo by itself. */
const FOUND: Record<string, (settings: Record<string, unknown>, proposals: SetupProposal[]) => void> = {
  'red bricks with light joints': (settings) => expect(settings['relief.polarity']).to.equal('dark'),
  'pale bricks with dark joints': (settings) => expect(settings['relief.polarity']).to.equal('bright'),
  cobbles: (settings, proposals) => {
    expect(settings['relief.polarity']).to.equal('bright');
    const { reason } = proposals.find(({ id }) => id === 'reading')!;
    expect(reason).to.match(/^Thin dark lines close faces \(\d+ %\)/);
  },
  'floor tiles turned by 2°': (_settings, proposals) =>
    expect(proposals.find(({ id }) => id === 'crop')?.title).to.match(/^Crop of about \d+ whole periods$/),
};

describe('setting up photos of twelve kinds', () => {
  const warned: Record<string, string[]> = {};

  for (const [name, made] of Object.entries(MADE_SOURCES)) {
    it(`${name}: everything that can be measured is proposed and applied`, async () => {
      const { recipe, proposals, verdictStates } = await setUpOf(photographed(made));
      const ids = proposals.map(({ id }) => id);
      expect(ids).to.include.members(['edge', 'material', 'reading']);
      expect(new Set(ids).size).to.equal(ids.length);
      for (const { title, reason } of proposals) {
        expect(title).to.match(/\S/);
        expect(reason).to.match(/[.?]$/);
      }
      expect(recipe.stations.square.size).to.be.oneOf([256, 512]);
      expect(recipe.stations.gauge.line).to.equal(recipe.stations.finish.line).and.not.equal('none');
      const settings = Object.fromEntries(
        Object.entries(recipe.stations).flatMap(([station, values]) =>
          Object.entries(values).map(([key, value]) => [`${station}.${key}`, value]),
        ),
      );
      FOUND[name]?.(settings, proposals);
      const states = Object.entries(await verdictStates());
      warned[name] = states.filter(([, state]) => state !== 'fine').map(([station]) => station);
    });
  }

  it('nine of ten come to verdicts that are fine, with one warning at most', () => {
    const bad = Object.entries(warned).filter(([, stations]) => stations.length > 1);
    expect(Object.keys(warned)).to.have.length(12);
    expect(bad, JSON.stringify(warned)).to.have.length.at.most(1);
  });
});
