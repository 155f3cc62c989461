import {
  defaultsOf,
  gaussian,
  isRemedied,
  type Pixels,
  PLAIN_CONTEXT,
  Raster,
  runToEnd,
  STATIONS,
  srgbToLinear,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { fitness } from '../../../src/stations/source/fitness.ts';
import { linearise } from '../../../src/stations/source/linearise.ts';
import { photo, pixelsOf } from '../../engine/host.ts';
import { noisePlane, tilingPicture } from '../../fields.ts';
import { grain, wall } from '../join/surfaces.ts';
import { frameOf } from '../run.ts';

const whole = (pixels: Pixels) => linearise({ pixels, given: {} }, { reads: 'file', givenGreen: 'up' });

describe('source', () => {
  it('says of one colour that it is one, and asks nothing of it', async () => {
    const white: Pixels = {
      width: 8,
      height: 8,
      channels: 3,
      data: new Uint8Array(192).fill(255),
      originalWidth: 8,
      originalHeight: 8,
    };
    const settings = defaultsOf(STATIONS.source.settings);
    const given = await whole(white);
    const verdict = await STATIONS.source.verdict(
      given,
      {} as never,
      settings as never,
      null as never,
      frameOf(1024),
      PLAIN_CONTEXT,
    );
    expect([verdict.state, verdict.brief, verdict.advice]).to.deep.equal(['fine', 'one colour', '']);
    expect(verdict.sentence).to.equal('The picture is one colour.');
    expect(verdict.remedies).to.deep.equal([]);
  });

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
    const f = runToEnd(fitness(whole(pixelsOf(picture))));
    expect([f.shortEdge, f.fittingSize]).to.deep.equal([240, 256]);
    expect(f.unevenness).to.be.within(0.03, 0.3);
    expect(f.burnt + f.black).to.be.below(0.001);
    const burnt = new Raster(
      320,
      240,
      picture.planes.map((p) => p.map((v, i) => (i < 7680 ? 1 : v))),
    );
    expect(runToEnd(fitness(whole(pixelsOf(burnt)))).burnt).to.be.closeTo(0.1, 0.002);
  });

  it('says in a word what there is to look at, and else how large the photo is', async () => {
    const size = 256;
    const crisp = wall(size, { across: 31, down: 23, turnDegrees: 0, even: true });
    const said = async (picture: Raster, wantedSize = 256) => {
      const { verdict } = STATIONS.source;
      const frame = { ...frameOf(size), wantedSize };
      const output = whole(pixelsOf(picture));
      const { state, brief } = await verdict(
        output,
        null as never,
        null as never,
        null,
        frame,
        PLAIN_CONTEXT,
      );
      return `${state}: ${brief}`;
    };
    const part = (value: number) => crisp.mapPlanes((p) => p.map((v, i) => (i < 8000 ? value : v)));
    expect(await said(crisp)).to.equal('fine: 256 × 256');
    expect(await said(crisp, 512)).to.equal('look: few pixels');
    expect(await said(part(1))).to.equal('look: clipped whites');
    expect(await said(part(0))).to.equal('look: clipped blacks');
    const blurred = crisp.mapPlanes((p) => gaussian(p, size, size, 3, { x: 'mirror', y: 'mirror' }));
    expect(await said(blurred)).to.equal('look: soft');
  });

  it('measures noise as it was put in, and knows a soft photo from a crisp one', () => {
    const size = 256;
    const noise = noisePlane(size * size, 5);
    const flat = (amount: number) =>
      new Raster(
        size,
        size,
        [0, 1, 2].map(() => noise.map((v) => srgbToLinear(0.5 + amount * (v - 0.5)))),
      );
    // Even noise of this width has a deviation of its width over √12.
    const found = runToEnd(fitness(whole(pixelsOf(flat(0.2))))).noise;
    expect(found).to.be.within(0.75 * (0.2 / Math.sqrt(12)), 1.3 * (0.2 / Math.sqrt(12)));
    const crisp = wall(size, { across: 31, down: 23, turnDegrees: 0, even: true });
    const soft = crisp.mapPlanes((p) => gaussian(p, size, size, 3, { x: 'mirror', y: 'mirror' }));
    const sharpness = (picture: Raster) => runToEnd(fitness(whole(pixelsOf(picture)))).sharpness;
    expect(sharpness(crisp)).to.be.above(0.5);
    expect(sharpness(soft)).to.be.below(0.35);
    // One colour has nothing that could be soft.
    expect(sharpness(crisp.mapPlanes((p) => p.slice().fill(0.31)))).to.equal(1);
  });

  it('says how far lines are off level, and whether the picture tiles already', () => {
    const slanted = wall(400, { across: 50, down: 30, turnDegrees: 4 });
    const f = runToEnd(fitness(whole(pixelsOf(slanted))));
    expect(f.tilt).to.be.closeTo(4, 0.4);
    expect(f.seam).to.be.above(1);
    const tiling = runToEnd(fitness(whole(pixelsOf(tilingPicture(256)))));
    expect(tiling.seam).to.be.at.most(1.01);
    expect(runToEnd(fitness(whole(pixelsOf(grain(256))))).tilt).to.equal(null);
  });

  it('its verdict asks for a smaller tile where the photo is too small, whatever size is previewed', async () => {
    const output = whole(pixelsOf(photo(320, 240)));
    const verdict = (wantedSize: number) =>
      STATIONS.source.verdict(
        output,
        { pixels: pixelsOf(photo(8, 8)), given: {}, shots: [] },
        defaultsOf(STATIONS.source.settings),
        null,
        {
          ...frameOf(256),
          wantedSize,
        },
        PLAIN_CONTEXT,
      );
    expect((await verdict(1024)).state).to.equal('look');
    const [remedy] = (await verdict(1024)).remedies!;
    expect(remedy.words).to.equal('Use 256 px');
    expect(isRemedied(remedy, { square: { size: 1024 } })).to.equal(false);
    expect(isRemedied(remedy, { square: { size: 256 } })).to.equal(true);
    expect((await verdict(1024)).sentence).to.include('Shorter side 240 px, for a 1024 px tile');
  });
});
