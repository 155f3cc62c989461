import { type Corners, cropMapper, mainDirection, type Problem, Raster, runToEnd } from '@zesty-tile/core';
import { expect } from 'chai';
import { cropTurn, marginsIn } from '../../../src/stations/square/geometry.ts';
import { noisePlane, planeOf, rmsBetween } from '../../fields.ts';
import { wall } from '../join/surfaces.ts';
import { frameOf, runStation } from '../run.ts';

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
    const { at, across } = cropMapper(400, 300, {
      centreX: 0.25,
      centreY: 0.5,
      share: 1 / 3,
      turnDegrees: 90,
    });
    expect(across).to.be.closeTo(100, 1e-9);
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

  describe('with four corners', () => {
    const corners: Corners = [
      [0.2, 0.15],
      [0.75, 0.22],
      [0.85, 0.9],
      [0.12, 0.8],
    ];

    it('the map runs through all four and keeps lines straight', () => {
      const { at } = cropMapper(480, 360, { ...crop, corners });
      const wanted = corners.map(([x, y]) => [480 * x, 360 * y]);
      for (const [k, [u, v]] of [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
      ].entries()) {
        expect(at(u, v)[0]).to.be.closeTo(wanted[k][0], 1e-9);
        expect(at(u, v)[1]).to.be.closeTo(wanted[k][1], 1e-9);
      }
      const [a, b, c] = [at(0.1, 0.3), at(0.4, 0.5), at(0.7, 0.7)];
      const area = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
      expect(area).to.be.closeTo(0, 1e-6);
    });

    it('resamples the photo once along the map, margins included', async () => {
      const photo = photoOf(480, 360);
      const settings = { ...crop, corners };
      const { output } = await runStation('square', inputOf(photo), settings, frameOf(256));
      const { at } = cropMapper(480, 360, settings);
      const { picture, margins } = output;
      expect(margins.left + margins.top).to.be.above(0);
      const truth = planeOf(picture.width, picture.height, (x, y) => {
        const [px, py] = at((x + 0.5 - margins.left) / 256, (y + 0.5 - margins.top) / 256);
        return pattern(px / 360, py / 360);
      });
      expect(rmsBetween(picture.planes[0], truth)).to.be.below(3e-3);
    });

    it('of a square are that square, with its turn', () => {
      const square = { ...crop, turnDegrees: 6 };
      const { at, across } = cropMapper(480, 360, square);
      const shares = [at(0, 0), at(1, 0), at(1, 1), at(0, 1)].map(([x, y]) => [x / 480, y / 360]) as Corners;
      const framed = { ...crop, corners: shares };
      expect(cropMapper(480, 360, framed).across).to.be.closeTo(across, 1e-6);
      expect(cropTurn(480, 360, framed)).to.be.closeTo(6, 1e-9);
    });

    it('that cross over are refused in plain words', async () => {
      const [a, b, c, d] = corners;
      let problem: Problem | undefined;
      try {
        await runStation('square', inputOf(photoOf(96, 72)), { ...crop, corners: [a, c, b, d] }, frameOf(64));
      } catch (error) {
        problem = error as Problem;
      }
      expect(problem?.code).to.equal('bad_corners');
      expect(`${problem?.message} ${problem?.hint}`).to.match(/cross over.*Drag them apart/);
    });
  });

  describe('the main direction of lines', () => {
    for (const degrees of [-7.3, 0, 2.4, 31]) {
      it(`is found within 0.3° at ${degrees}°`, () => {
        const picture = wall(512, { across: 70, down: 44, turnDegrees: degrees });
        const found = runToEnd(mainDirection(picture.planes[0], 512, 512));
        expect(found.degrees).to.be.closeTo(degrees, 0.3);
        expect(found.plain).to.be.above(2);
      });
    }

    it('is not plain where there are no lines', () => {
      expect(runToEnd(mainDirection(noisePlane(256 * 256, 3), 256, 256)).plain).to.be.below(2);
    });
  });
});
