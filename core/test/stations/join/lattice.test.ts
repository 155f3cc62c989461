import { luminance, type Raster } from '@zesty-tile/core';
import { expect } from 'chai';
import { findLattice } from '../../../src/stations/join/lattice.ts';
import { noisePlane } from '../../fields.ts';
import { boards, wall } from './surfaces.ts';

const SIZE = 560;
const find = (picture: Raster) => findLattice(luminance(picture), picture.width, picture.height);

describe('the lattice of a regular pattern', () => {
  for (const { across, down, turnDegrees } of [
    { across: 61.3, down: 61.3, turnDegrees: 0 },
    { across: 47.7, down: 83.2, turnDegrees: 3.5 },
    { across: 90.4, down: 40.6, turnDegrees: -5 },
  ]) {
    it(`is found within half a percent at ${across} × ${down} px and ${turnDegrees}°, unevenly lit`, async () => {
      const lattice = (await find(wall(SIZE, { across, down, turnDegrees })))!;
      const turn = (turnDegrees * Math.PI) / 180;
      const wanted = [
        [across * Math.cos(turn), across * Math.sin(turn)],
        [-down * Math.sin(turn), down * Math.cos(turn)],
      ];
      for (const [x, y] of wanted) {
        const near = [lattice.a, lattice.b!].find(([p, q]) => {
          const sign = p * x + q * y < 0 ? -1 : 1;
          return Math.hypot(sign * p - x, sign * q - y) < 0.005 * Math.hypot(x, y);
        });
        expect(near, `${x.toFixed(1)}, ${y.toFixed(1)}`).to.not.equal(undefined);
      }
    });
  }

  it('of a bond is its smallest cell: half a block along, one row down', async () => {
    const lattice = (await find(wall(SIZE, { across: 80, down: 36, turnDegrees: 0, bond: true })))!;
    const area = Math.abs(lattice.a[0] * lattice.b![1] - lattice.a[1] * lattice.b![0]);
    expect(area).to.be.closeTo(80 * 36, 0.005 * 80 * 36);
  });

  it('of boards is one period, square to the boards', async () => {
    const lattice = (await find(boards(SIZE, 52.3, 1.5)))!;
    expect(lattice.b).to.equal(null);
    expect(Math.hypot(...lattice.a)).to.be.closeTo(52.3, 0.005 * 52.3);
    expect((Math.atan2(lattice.a[1], lattice.a[0]) * 180) / Math.PI).to.be.closeTo(1.5, 0.3);
  });

  it('is not found where nothing repeats', async () => {
    expect(await findLattice(noisePlane(SIZE * SIZE, 6), SIZE, SIZE)).to.equal(null);
  });
});
