import { findRepeats, Raster, roll, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { noisePlane, planeOf } from '../../fields.ts';

const size = 128;
const grain = () =>
  new Raster(
    size,
    size,
    [1, 2, 3].map((seed) => noisePlane(size * size, seed).map((v) => 0.3 + 0.1 * v)),
  );

/** Grain with a round stain of one colour channel's factor at (x, y). */
const stained = (x: number, y: number, factors: number[]) => {
  const picture = grain();
  picture.planes.forEach((plane, c) => {
    const stain = planeOf(
      size,
      size,
      (px, py) => 1 - (1 - factors[c]) * Math.exp(-((px - x) ** 2 + (py - y) ** 2) / 72),
    );
    for (let i = 0; i < plane.length; i++) plane[i] *= stain[i];
  });
  return picture;
};

describe('what will be seen repeating', () => {
  it('is nothing in even grain', async () => {
    expect(await findRepeats(grain(), TORUS)).to.deep.equal([]);
  });

  it('is a dark stain, in its place and about its size', async () => {
    const [first] = await findRepeats(stained(40, 90, [0.5, 0.5, 0.5]), TORUS);
    expect(first.x * size).to.be.closeTo(40.5, 2);
    expect(first.y * size).to.be.closeTo(90.5, 2);
    expect(first.sigma * size).to.be.within(2.5, 9);
  });

  it('is a stain of colour alone', async () => {
    const [first] = await findRepeats(stained(64, 20, [2, 0.5, 1]), TORUS);
    expect(first.x * size).to.be.closeTo(64.5, 2);
  });

  it('is found across the edge as well as inside', async () => {
    const picture = stained(64, 64, [0.5, 0.5, 0.5]);
    const inside = await findRepeats(picture, TORUS);
    const across = await findRepeats(roll(picture, 64, 64), TORUS);
    expect(across.length).to.equal(inside.length);
    // What is usual is told to a bin of its range.
    for (const [k, { strength }] of across.entries())
      expect(strength).to.be.closeTo(inside[k].strength, 2e-4 * strength);
    expect(Math.min(across[0].x, 1 - across[0].x)).to.be.below(0.03);
  });
});
