import {
  contrastSensitivity,
  findRepeats,
  gaussian,
  leastVisible,
  Raster,
  roll,
  TORUS,
} from '@zesty-tile/core';
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

  const N = 256;
  /** Blades of grass, with a broad patch of other tone or colour at (0.4, 0.6). */
  const lawn = (factors: number[], sigma = 0.12) => {
    const [fine, soft] = [1, 4].map((blur, k) => gaussian(noisePlane(N * N, 3 + k), N, N, blur, TORUS));
    const patch = planeOf(N, N, (x, y) =>
      Math.exp(-((x / N - 0.4) ** 2 + (y / N - 0.6) ** 2) / (2 * sigma ** 2)),
    );
    const planes = [0.075, 0.11, 0.03].map((tint, c) =>
      fine.map((v, i) => tint * Math.exp(3 * (v - 0.5) + 3 * (soft[i] - 0.5)) * factors[c] ** patch[i]),
    );
    return new Raster(N, N, planes);
  };

  it('is a broad patch too: a yellow-green place in a lawn, and a light one, but not the lawn itself', async () => {
    expect(await findRepeats(lawn([1, 1, 1]), TORUS)).to.deep.equal([]);
    for (const factors of [
      [1.22, 1.13, 1],
      [1.35, 1.35, 1.35],
    ]) {
      const [first, ...others] = await findRepeats(lawn(factors), TORUS);
      expect([first.x, first.y].map((v) => Math.round(10 * v))).to.deep.equal([4, 6]);
      expect(first.strength).to.be.above(10);
      expect(first.sigma).to.be.within(0.06, 0.18);
      for (const { strength } of others) expect(strength).to.be.below(first.strength / 1.3);
    }
    // What the eye does not notice on the repeated tile does not count.
    expect(await findRepeats(lawn([1.02, 1.02, 1.02]), TORUS)).to.deep.equal([]);
  });

  it('is weighed by contrast sensitivity: best at a few cycles a degree, poor where tone changes broadly', () => {
    const at = [0.1, 0.5, 2, 6, 20, 40].map(contrastSensitivity);
    expect(Math.max(...at)).to.equal(at[3]);
    expect(at[3]).to.be.within(0.9, 1.05);
    for (const k of [0, 1, 2]) expect(at[k]).to.be.below(at[k + 1]);
    expect(at[5]).to.be.below(at[4]);
    expect(leastVisible(0.18, false)).to.be.above(1.5 * leastVisible(0.06, false));
    expect(leastVisible(0.18, true)).to.equal(leastVisible(0.06, true));
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
