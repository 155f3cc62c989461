import { cropMapper, SHAPES } from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { keptInside, moved, pulled, turnedTo } from '../src/stations/square/crop-geometry.ts';

const PHOTO = { width: 1600, height: 1200 };
const crop = { centreX: 0.5, centreY: 0.5, share: 0.6, turnDegrees: 0 };

const anyCrop = fc.record({
  centreX: fc.double({ min: 0, max: 1, noNaN: true }),
  centreY: fc.double({ min: 0, max: 1, noNaN: true }),
  share: fc.double({ min: 0.05, max: 1, noNaN: true }),
  turnDegrees: fc.double({ min: -45, max: 45, noNaN: true }),
  shape: fc.constantFrom(...SHAPES),
});

describe('crop by hand', () => {
  it('never leaves the photo, whatever is asked', () => {
    fc.assert(
      fc.property(anyCrop, (asked) => {
        const { at } = cropMapper(PHOTO.width, PHOTO.height, keptInside(PHOTO, asked));
        for (const [u, v] of [
          [0, 0],
          [1, 0],
          [1, 1],
          [0, 1],
        ]) {
          const [x, y] = at(u, v);
          // Settings stand on steps of a thousandth.
          expect(x).to.be.within(-2, PHOTO.width + 2);
          expect(y).to.be.within(-2, PHOTO.height + 2);
        }
      }),
    );
  });

  it('a corner that is pulled comes under the pointer while the opposite one stays', () => {
    for (const [turnDegrees, shape] of [
      [0, '1:1'],
      [12, '1:1'],
      [-7, '2:1'],
      [5, '1:2'],
    ] as const) {
      const from = { ...crop, turnDegrees, shape, share: 0.4 };
      const before = cropMapper(PHOTO.width, PHOTO.height, from);
      const [px, py] = before.at(1.2, 1.2);
      const next = cropMapper(PHOTO.width, PHOTO.height, pulled(PHOTO, from, 1, 1, px, py));
      const [[ax, ay], [bx, by]] = [before.at(0, 0), next.at(0, 0)];
      expect(Math.hypot(ax - bx, ay - by)).to.be.below(3);
      const [cx, cy] = next.at(1, 1);
      expect(Math.hypot(cx - px, cy - py)).to.be.below(4);
    }
  });

  it('moves by photo pixels, and stops at the border', () => {
    expect(moved(PHOTO, crop, 160, -120)).to.include({ centreX: 0.6, centreY: 0.4 });
    expect(moved(PHOTO, crop, 9000, 0).centreX).to.equal(0.775);
  });

  it('turns towards the pointer, no further than the dial goes', () => {
    expect(turnedTo(PHOTO, crop, 800, 0).turnDegrees).to.equal(0);
    expect(turnedTo(PHOTO, crop, 800 + 600 * Math.tan(Math.PI / 18), 0).turnDegrees).to.be.closeTo(10, 0.05);
    expect(turnedTo(PHOTO, crop, 1600, 600).turnDegrees).to.equal(45);
  });
});
