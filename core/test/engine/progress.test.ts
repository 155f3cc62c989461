import { STATION_NAMES } from '@zesty-tile/core';
import { expect } from 'chai';
import { Progress, pathTo } from '../../src/engine/progress.ts';

describe('progress', () => {
  it('goes along the stations to its end, never back, and never past what a station is worth', () => {
    const told: [string, number][] = [];
    const progress = new Progress(pathTo(), (name, share) => told.push([name, share]));
    for (const name of STATION_NAMES) {
      // What is settled on the way may weigh more than the one that asks for it.
      progress.at(name, 'relief', 0.9);
      progress.at(name, name, 0.5);
      progress.at(name, name, 0.2);
      progress.done(name);
    }
    const shares = told.map(([, share]) => share);
    expect(shares.every((share, i) => i === 0 || share > shares[i - 1])).to.equal(true);
    expect(shares.at(-1)).to.equal(1);
    const ends = new Map(told);
    expect([...ends.keys()]).to.deep.equal([...STATION_NAMES]);
    expect(ends.get('relief')! - ends.get('gauge')!).to.be.above(ends.get('finish')! - ends.get('relief')!);
  });

  it('of a shorter way ends at the whole all the same', () => {
    let last = 0;
    const progress = new Progress(pathTo('join'), (_name, share) => {
      last = share;
    });
    for (const name of pathTo('join')) progress.done(name);
    expect(last).to.equal(1);
  });
});
