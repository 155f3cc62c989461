import { SHAPES, sidesOf } from '@zesty-tile/core';
import { expect } from 'chai';
import { cellVectors } from '../../../src/stations/join/cells.ts';
import {
  placeVectors,
  reachOf,
  shearOf,
  straightVectors,
  stretchOf,
  turnOf,
  type Vector,
} from '../../../src/stations/join/vectors.ts';

const NONE = { left: 0, right: 0, top: 0, bottom: 0 };
const WIDE = { left: 0.125, right: 0.125, top: 0.125, bottom: 0.125 };
const REACH: Vector = [1 / 12, 1 / 12];

describe('the tile’s vectors', () => {
  it('are the crop’s own edges where the margins suffice, shorter where they do not', () => {
    expect(straightVectors(REACH, WIDE)).to.deep.equal({ corner: [0, 0], u: [1, 0], v: [0, 1] });
    const short = straightVectors(REACH, NONE);
    expect(short.u[0]).to.be.closeTo(1 / (1 + 1 / 6), 1e-9);
    expect(straightVectors([0, 0], NONE).u[0]).to.equal(1);
  });

  it('are placed so that all that is read lies inside the photo, or not at all', () => {
    const placed = placeVectors([1.02, 0.03], [-0.02, 0.98], REACH, WIDE)!;
    for (const a of [-REACH[0], 1 + REACH[0]]) {
      for (const b of [-REACH[1], 1 + REACH[1]]) {
        for (const axis of [0, 1]) {
          const at = placed.corner[axis] + a * placed.u[axis] + b * placed.v[axis];
          expect(at).to.be.within(-0.125 - 1e-9, 1.125 + 1e-9);
        }
      }
    }
    expect(placeVectors([1.2, 0], [0, 1], REACH, WIDE)).to.equal(null);
  });

  it('say their turn, stretch and shear', () => {
    const turn = (3 * Math.PI) / 180;
    const u: Vector = [Math.cos(turn), Math.sin(turn)];
    const v: Vector = [-0.9 * Math.sin(turn), 0.9 * Math.cos(turn)];
    const vectors = { corner: [0, 0] as Vector, u, v };
    expect(turnOf(vectors)).to.be.closeTo(3, 1e-9);
    expect(stretchOf(vectors)).to.be.closeTo(1 / 0.9, 1e-9);
    expect(shearOf(vectors)).to.be.closeTo(0, 1e-9);
  });

  it('of whole cells are combinations of the lattice, along the axes, and fit', () => {
    const size = 512;
    const a: Vector = [60, 2];
    const b: Vector = [-1, 44];
    const [best] = cellVectors(
      { a, b, strength: 1, contrast: 1 },
      { width: size, height: size },
      REACH,
      WIDE,
    );
    for (const vector of [best.u, best.v]) {
      const [x, y] = [vector[0] * size, vector[1] * size];
      const determinant = a[0] * b[1] - a[1] * b[0];
      const i = (x * b[1] - y * b[0]) / determinant;
      const j = (a[0] * y - a[1] * x) / determinant;
      expect(i).to.be.closeTo(Math.round(i), 1e-6);
      expect(j).to.be.closeTo(Math.round(j), 1e-6);
    }
    expect(stretchOf(best)).to.be.below(1.1);
    expect(best.u[0]).to.be.within(0.85, 1.1);
  });

  it('keep the overlap on the grid that is whole pixels at every size', () => {
    for (const wished of [0.05, 0.1, 1 / 6, 0.25]) {
      for (const shape of SHAPES) {
        const reach = reachOf(wished, 'both', shape);
        for (const size of [256, 512, 4096]) {
          const { width, height } = sidesOf(shape, size);
          expect(reach[0] * width).to.equal(Math.round(reach[0] * width));
          expect(reach[1] * height).to.equal(Math.round(reach[1] * height));
        }
      }
    }
    const [across, down] = reachOf(0.2, 'across', '1:1');
    expect(across).to.be.closeTo(0.1, 0.002);
    expect(down).to.equal(0);
  });
});
