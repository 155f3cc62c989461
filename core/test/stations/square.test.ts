import { cropMapper, Raster } from '@zesty-tile/core';
import { expect } from 'chai';
import { marginsIn } from '../../src/stations/square/geometry.ts';
import { planeOf, rmsBetween } from '../fields.ts';
import { frameOf, runStation } from './run.ts';

const crop = { centreX: 0.5, centreY: 0.5, share: 0.5, turnDegrees: 0 };

/** A soft pattern over a photo, as a function of its own place, 0..1 by the shorter side. */
const pattern = (u: number, v: number) =>
  0.4 + 0.2 * Math.sin(9 * u + 2) * Math.cos(7 * v) + 0.1 * Math.sin(23 * (u - v));
const photoOf = (width: number, height: number) =>
  new Raster(
    width,
    height,
    [0, 1, 2].map((c) =>
      planeOf(width, height, (x, y) => pattern((x + 0.5) / height, (y + 0.5) / height) * (1 - 0.1 * c)),
    ),
  );
const inputOf = (picture: Raster) => ({
  picture,
  alpha: null,
  given: {},
  originalWidth: picture.width,
  originalHeight: picture.height,
});

describe('square', () => {
  it('a crop’s middle is where it was put, its corners turn clockwise', () => {
    const { at, edge } = cropMapper(400, 300, { centreX: 0.25, centreY: 0.5, share: 1 / 3, turnDegrees: 90 });
    expect(edge).to.be.closeTo(100, 1e-9);
    expect(at(0.5, 0.5)).to.deep.equal([100, 150]);
    const [x, y] = at(0, 0);
    expect([Math.round(x), Math.round(y)]).to.deep.equal([150, 100]);
  });

  for (const turnDegrees of [0, 7.5, -30]) {
    it(`resamples what lies under it, turned by ${turnDegrees}°, margins included`, async () => {
      const settings = { ...crop, turnDegrees };
      const photo = photoOf(480, 360);
      const { output } = await runStation('square', inputOf(photo), settings, frameOf(256));
      const { at } = cropMapper(480, 360, settings);
      const { picture, margins } = output;
      expect(margins.left).to.be.above(0);
      const truth = planeOf(picture.width, picture.height, (x, y) => {
        const [px, py] = at((x + 0.5 - margins.left) / 256, (y + 0.5 - margins.top) / 256);
        return pattern(px / 360, py / 360);
      });
      expect(rmsBetween(picture.planes[0], truth)).to.be.below(2e-3);
    });
  }

  it('keeps a margin for Join on whole 256ths, as far as the photo reaches and no farther', () => {
    const m = marginsIn(480, 360, crop);
    expect(m.left + m.right).to.be.closeTo(0.25, 1e-9);
    for (const side of Object.values(m)) expect((side * 256) % 1).to.equal(0);
    expect(marginsIn(480, 360, { ...crop, share: 1 })).to.include({ top: 0, bottom: 0 });
    const corner = marginsIn(480, 360, { ...crop, centreX: 0.1875, centreY: 0.25 });
    expect([corner.left, corner.top]).to.deep.equal([0, 0]);
    expect(marginsIn(480, 360, { ...crop, share: 0.9, turnDegrees: 20 })).to.include({ left: 0, top: 0 });
  });

  it('says when the crop leaves the photo, and mirrors there', async () => {
    const { output } = await runStation(
      'square',
      inputOf(photoOf(480, 360)),
      { ...crop, centreX: 0 },
      frameOf(256),
    );
    expect(output.outside).to.be.closeTo(0.5, 0.01);
    const row = output.picture.planes[0].subarray(0, output.picture.width);
    expect(row[127 - 10 + output.margins.left]).to.be.closeTo(row[128 + 10 + output.margins.left], 1e-4);
  });
});
