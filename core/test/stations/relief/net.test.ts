import { runToEnd, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { CLEAR_NET, findNets } from '../../../src/stations/relief/joints/net.ts';
import { noisePlane, planeOf } from '../../fields.ts';

const SIZE = 256;
const SIDES = { width: SIZE, height: SIZE };

/** Square tiles, `across` of them, with joints between. */
const tiled = (across: number, joint: number, face: number) =>
  planeOf(SIZE, SIZE, (x, y) => {
    const [u, v] = [(x * across) / SIZE, (y * across) / SIZE].map((t) => Math.abs((t % 1) - 0.5));
    return Math.max(u, v) > 0.46 ? joint : face;
  });

const netsOf = (plane: Float32Array) => runToEnd(findNets(plane, SIDES, TORUS));

describe('nets of joints', () => {
  it('are found where dark joints close faces, with the size of the faces', () => {
    const { dark, light } = netsOf(tiled(4, 0.2, 0.6));
    expect(dark.score).to.be.above(0.8);
    expect(dark.score).to.be.above(light.score);
    expect(dark.faceArea).to.be.closeTo(0.92 ** 2 / 16, 0.015);
    expect(dark.mask.reduce((sum, on) => sum + on, 0) / dark.mask.length).to.be.closeTo(0.18, 0.06);
  });

  it('are the same of light joints in the negative', () => {
    const plane = tiled(4, 0.2, 0.6);
    const [as, negative] = [netsOf(plane), netsOf(plane.map((value) => 0.8 - value))];
    expect(negative.light.score).to.be.closeTo(as.dark.score, 0.02);
    expect(negative.dark.score).to.be.closeTo(as.light.score, 0.02);
  });

  it('do not hold of noise, of waves, of a plane', () => {
    const waves = planeOf(SIZE, SIZE, (x) => 0.5 + 0.2 * Math.sin((12 * Math.PI * x) / SIZE));
    for (const plane of [noisePlane(SIZE * SIZE, 5), waves, new Float32Array(SIZE * SIZE).fill(0.4)]) {
      const { dark, light } = netsOf(plane);
      expect(Math.max(dark.score, light.score)).to.be.below(CLEAR_NET);
    }
  });
});
