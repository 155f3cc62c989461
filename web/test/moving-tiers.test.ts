import { expect } from 'chai';
import { type MovingTier, MovingTiers, SLOW_MS } from '../src/bench/sill/frame/moving-tiers.ts';

/** Draws so many frames, each of which takes what `cost` says of its tier; the tier at the end. */
function afterFrames(tiers: MovingTiers, count: number, cost: (tier: MovingTier) => number): MovingTier {
  for (let k = 0; k < count; k++) tiers.took(tiers.now, cost(tiers.now));
  return tiers.now;
}

const WHOLE = { dividedBy: 1, isOccluded: false };
const FINEST = { dividedBy: 1, isOccluded: true };

describe('tiers of the frames that are drawn while something moves', () => {
  it('stay at the finest on a quick graphics card', () => {
    expect(afterFrames(new MovingTiers(true), 100, () => 8)).to.deep.equal(FINEST);
  });

  it('never hide the sky by themselves without a graphics card', () => {
    const tiers = new MovingTiers(false);
    expect(tiers.now).to.deep.equal(WHOLE);
    expect(afterFrames(tiers, 100, () => 1)).to.deep.equal(WHOLE);
  });

  it('leave a tier once the middle one of five frames is slow, and not for one that was held up', () => {
    const tiers = new MovingTiers(true);
    for (const ms of [10, 10, 10, 10, 10, 900]) tiers.took(tiers.now, ms);
    expect(tiers.now).to.deep.equal(FINEST);
    expect(afterFrames(tiers, 5, () => SLOW_MS + 1)).to.deep.equal(WHOLE);
  });

  it('leave it after one frame of two seconds', () => {
    const tiers = new MovingTiers(false);
    expect(tiers.took(tiers.now, 2000)).to.equal(2000);
    expect(tiers.now.dividedBy).to.equal(2);
    tiers.took(tiers.now, 1500);
    tiers.took(tiers.now, 1500);
    expect(tiers.now.dividedBy).to.equal(3);
  });

  it('come to rest where a frame costs as much as it has pixels, and never change again', () => {
    for (const hasCard of [true, false])
      for (const whole of [5, 30, 61, 100, 200, 400, 1000, 5000]) {
        const cost = ({ dividedBy, isOccluded }: MovingTier) =>
          whole / dividedBy ** 2 + (isOccluded ? whole / 2 : 0);
        const tiers = new MovingTiers(hasCard);
        const at = afterFrames(tiers, 60, cost);
        expect(cost(at) <= SLOW_MS || at.dividedBy === 3, `${whole} ms`).to.equal(true);
        for (let k = 0; k < 60; k++) expect(afterFrames(tiers, 1, cost), `${whole} ms`).to.equal(at);
      }
  });

  it('grow again once there is time; the sky is hidden again only at another size', () => {
    const tiers = new MovingTiers(true);
    const slow = ({ isOccluded }: MovingTier) => (isOccluded ? 50 : 0) + 300;
    expect(afterFrames(tiers, 40, slow).dividedBy).to.equal(3);
    expect(afterFrames(tiers, 60, () => 5)).to.deep.equal(WHOLE);
    tiers.forget();
    expect(tiers.now).to.deep.equal(FINEST);
  });

  it('take no notice of a frame of another tier', () => {
    const tiers = new MovingTiers(true);
    expect(tiers.took(WHOLE, 5000)).to.equal(null);
    expect(tiers.now).to.deep.equal(FINEST);
  });
});
