import {
  albedoBand,
  chartLine,
  linearToOklab,
  linearToSrgb,
  luminance,
  percentiles,
  Raster,
  srgbToLinear,
} from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { recolouring } from '../../../src/colour/recolouring.ts';
import { balanced, whiteGains } from '../../../src/stations/gauge/recolour.ts';
import { farthest, noisePlane, tilingPicture } from '../../fields.ts';
import { frameOf, runStation, unpainted } from '../run.ts';

const SIZE = 96;
const picture = tilingPicture(SIZE);
const gauged = async (changes: object, of = picture) => {
  const { output } = await runStation(
    'gauge',
    { style: unpainted(of) },
    { fit: false, hold: false, ...changes },
    frameOf(SIZE),
  );
  return output.albedo as Raster;
};
const hueOf = (raster: Raster, i: number) => {
  const [, a, b] = linearToOklab(raster.planes[0][i], raster.planes[1][i], raster.planes[2][i]);
  return { hue: (Math.atan2(b, a) * 180) / Math.PI, chroma: Math.hypot(a, b) };
};

describe('recolouring', () => {
  it('holds luminance, whatever is turned and pulled', async () => {
    const out = await gauged({ hueDegrees: 70, pull: 0.4, towards: '#b06a3a', colour: 0.8 });
    expect(farthest(luminance(out), luminance(picture))).to.be.below(1e-4);
  });

  it('and brightening, lifting and holding turn no hue by 1°, even where colours leave the gamut', async () => {
    const vivid = new Raster(
      SIZE,
      SIZE,
      [7, 8, 9].map((seed) => noisePlane(SIZE * SIZE, seed).map((v) => v * v)),
    );
    for (const [exposure, hold] of [
      [-1, true],
      [1, true],
      [1.6, false],
    ]) {
      const out = await gauged({ exposure, hold, contrast: 1.3 }, vivid);
      let seen = 0;
      for (let i = 0; i < SIZE * SIZE; i += 5) {
        const [before, after] = [hueOf(vivid, i), hueOf(out, i)];
        if (before.chroma < 0.02 || after.chroma < 0.02) continue;
        seen++;
        expect(Math.abs(((after.hue - before.hue + 540) % 360) - 180)).to.be.below(1);
      }
      expect(seen).to.be.above(600);
      for (const plane of out.planes) for (const value of plane) expect(value).to.be.within(0, 1);
    }
  });

  it('turns every hue by what was asked, within 1°', async () => {
    const out = await gauged({ hueDegrees: 40 });
    for (let i = 0; i < SIZE * SIZE; i += 97) {
      const [before, after] = [hueOf(picture, i), hueOf(out, i)];
      if (before.chroma < 0.01) continue;
      expect(Math.abs(((after.hue - before.hue - 40 + 540) % 360) - 180)).to.be.below(1);
    }
  });

  it('does nothing where nothing is asked, and changes no other map', async () => {
    expect(farthest((await gauged({})).planes[0], picture.planes[0])).to.be.below(1e-6);
    const change = recolouring({ strength: 1, hueDegrees: 0, towards: '#336699', pull: 0 });
    expect(change(0.5, 0.1, -0.05)).to.deep.equal([0.1, -0.05]);
  });

  it('pulled all the way every colour has the hue of the aim', async () => {
    // A colour that stays in gamut at every luminance of the picture.
    const out = await gauged({ pull: 1, towards: '#97826f' });
    const aim = hueOf(
      new Raster(
        1,
        1,
        [0x97, 0x82, 0x6f].map((code) => Float32Array.of(srgbToLinear(code / 255))),
      ),
      0,
    );
    for (let i = 0; i < SIZE * SIZE; i += 131) {
      expect(Math.abs(hueOf(out, i).hue - aim.hue)).to.be.below(1);
    }
  });
});

describe('white balance', () => {
  it('makes the colour that should be grey grey, of the same luminance', () => {
    fc.assert(
      fc.property(
        fc.tuple(
          fc.integer({ min: 40, max: 250 }),
          fc.integer({ min: 40, max: 250 }),
          fc.integer({ min: 40, max: 250 }),
        ),
        (codes) => {
          const hex = `#${codes.map((code) => code.toString(16).padStart(2, '0')).join('')}`;
          const linear = codes.map((code) => {
            const v = code / 255;
            return Float32Array.of(v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
          });
          const one = new Raster(1, 1, linear);
          const out = balanced(one, whiteGains(hex));
          const back = out.planes.map((plane) => linearToSrgb(plane[0]));
          expect(Math.max(...back) - Math.min(...back)).to.be.below(1e-3);
          expect(luminance(out)[0]).to.be.closeTo(luminance(one)[0], 1e-5);
        },
      ),
    );
  });

  it('by grey is the very picture', () => {
    expect(balanced(picture, whiteGains('#777777'))).to.equal(picture);
  });
});

describe('fitting by two percentiles', () => {
  for (const id of ['sand-dry', 'fired-clay-red', 'soil-pale']) {
    it(`brings both to the ends of the band of ${id} within 0.5 %`, async () => {
      const band = albedoBand(chartLine(id)!);
      const chosen = { line: id, fit: true, hold: true, fitBy: 'percentiles', fitLow: 10, fitHigh: 90 };
      const [low, high] = percentiles(luminance(await gauged(chosen)), [10, 90]);
      expect(low / band[0]).to.be.closeTo(1, 0.005);
      expect(high / band[1]).to.be.closeTo(1, 0.005);
    });
  }

  it('of a picture of one tone falls back to the median, and asks for no endless contrast', async () => {
    const plain = new Raster(
      SIZE,
      SIZE,
      [0, 1, 2].map(() => new Float32Array(SIZE * SIZE).fill(0.1)),
    );
    const out = await gauged({ line: 'sand-dry', fit: true, fitBy: 'percentiles' }, plain);
    const band = albedoBand(chartLine('sand-dry')!);
    expect(luminance(out)[5]).to.be.within(band[0] * 0.999, band[1] * 1.001);
  });
});
