import { type Pixels, Raster, STATIONS, srgbToLinear } from '@zesty-tile/core';
import { expect } from 'chai';
import { fitness } from '../../src/stations/source/fitness.ts';
import { linearise } from '../../src/stations/source/station.ts';
import { photo, pixelsOf } from '../engine/host.ts';
import { frameOf } from './run.ts';

const whole = (pixels: Pixels) => linearise({ pixels, given: {} });

describe('source', () => {
  it('brings codes of 8 and 16 bits to the same linear light, alpha aside and untouched by the curve', () => {
    const eight: Pixels = {
      width: 1,
      height: 1,
      channels: 4,
      data: Uint8Array.of(188, 0, 255, 128),
      originalWidth: 1,
      originalHeight: 1,
    };
    const sixteen: Pixels = { ...eight, data: Uint16Array.from([188, 0, 255, 128], (v) => v * 257) };
    for (const pixels of [eight, sixteen]) {
      const { picture, alpha } = whole(pixels);
      expect(picture.planes[0][0]).to.be.closeTo(srgbToLinear(188 / 255), 1e-6);
      expect([picture.planes[1][0], picture.planes[2][0]]).to.deep.equal([0, 1]);
      expect(alpha![0]).to.be.closeTo(128 / 255, 1e-6);
    }
    expect(whole({ ...eight, channels: 3, data: Uint8Array.of(1, 2, 3) }).alpha).to.equal(null);
  });

  it('reports what the photo holds: its pixels, its light, what is burnt out', () => {
    const picture = photo(320, 240);
    const f = fitness(whole(pixelsOf(picture)));
    expect([f.shortEdge, f.fittingSize]).to.deep.equal([240, 256]);
    expect(f.unevenness).to.be.within(0.03, 0.3);
    expect(f.clipped).to.be.below(0.001);
    const burnt = new Raster(
      320,
      240,
      picture.planes.map((p) => p.map((v, i) => (i < 7680 ? 1 : v))),
    );
    expect(fitness(whole(pixelsOf(burnt))).clipped).to.be.closeTo(0.1, 0.002);
  });

  it('its verdict asks for a smaller tile where the photo is too small, whatever size is previewed', () => {
    const output = whole(pixelsOf(photo(320, 240)));
    const verdict = (wantedSize: number) =>
      STATIONS.source.verdict(output, { pixels: pixelsOf(photo(8, 8)), given: {} }, {}, null, {
        ...frameOf(256),
        wantedSize,
      });
    expect(verdict(1024).state).to.equal('look');
    expect(verdict(1024).advice).to.include('256 px');
    expect(verdict(1024).sentence).to.include('240 px on its shorter side for a tile of 1024 px');
  });
});
