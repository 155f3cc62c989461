import {
  Engine,
  type GivenRefs,
  mapRaster,
  Raster,
  reducePixels,
  reductionFor,
  type StationSettings,
  surfaceOf,
  type TileOutputs,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { turnedNormals } from '../../src/tile/given.ts';
import { photo, pixelsOf, recipeWith } from '../engine/host.ts';
import { farthest, planeOf, rmsBetween } from '../fields.ts';

const width = 420;
const height = 360;
const picture = photo(width, height);

/** 16-bit codes of data planes, as a decoder hands them out. */
function codesOf(planes: Float32Array[], size: { width: number; height: number }) {
  const data = new Uint16Array(3 * size.width * size.height);
  for (let i = 0; i < size.width * size.height; i++) {
    for (let c = 0; c < 3; c++) data[3 * i + c] = Math.round(65535 * (planes[c] ?? planes[0])[i]);
  }
  return { ...size, channels: 3 as const, data, originalWidth: size.width, originalHeight: size.height };
}

const refOf = (sha256: string, size = { width, height }) => ({ sha256, ...size });

async function evaluate(
  given: Record<string, { planes: Float32Array[]; width?: number; height?: number }>,
  changes = {},
  green: { givenGreen?: 'up' | 'down' } = {},
) {
  const pictures = Object.fromEntries(
    Object.entries(given).map(([map, g]) => [
      map,
      codesOf(g.planes, { width: g.width ?? width, height: g.height ?? height }),
    ]),
  );
  const engine = new Engine(
    {
      async pixels(source, shortEdge, kind) {
        const pixels = pictures[source.sha256] ?? pixelsOf(picture);
        return reducePixels(pixels, reductionFor(source, shortEdge), kind);
      },
    },
    2 ** 28,
  );
  const refs = Object.fromEntries(
    Object.entries(pictures).map(([map, p]) => [map, refOf(map, { width: p.width, height: p.height })]),
  ) as GivenRefs;
  const { outputs } = await engine.evaluate({
    recipe: recipeWith({ ...changes, source: { given: refs, ...green } }),
    source: refOf('photo'),
    size: 256,
  });
  return outputs as TileOutputs;
}

const bright = picture.planes[1];

describe('given maps', () => {
  it('go through the same crop and cut as the colour', async () => {
    // The green of the evened-free photo itself, given as cavity: it must lie on the joined green.
    const outputs = await evaluate(
      { cavity: { planes: [bright] } },
      { even: { amount: 0 }, square: { turnDegrees: 4 } },
    );
    expect(rmsBetween(outputs.relief.cavity, outputs.style.picture.planes[1])).to.be.below(1e-3);
    const derived = await evaluate({}, { even: { amount: 0 }, square: { turnDegrees: 4 } });
    expect(rmsBetween(derived.relief.cavity, outputs.relief.cavity)).to.be.above(0.05);
  });

  it('take the same repairs as the colour', async () => {
    const repairs = [
      {
        kind: 'clone',
        points: [
          [0.3, 0.3],
          [0.6, 0.4],
        ],
        radius: 0.06,
        softness: 0.4,
        opacity: 0.8,
        offset: [0.25, 0.5],
      },
    ] as StationSettings['join']['repairs'];
    const plain = await evaluate({ cavity: { planes: [bright] } }, { even: { amount: 0 } });
    const outputs = await evaluate(
      { cavity: { planes: [bright] } },
      { even: { amount: 0 }, join: { repairs } },
    );
    expect(rmsBetween(outputs.relief.cavity, plain.relief.cavity)).to.be.above(0.01);
    expect(rmsBetween(outputs.relief.cavity, outputs.style.picture.planes[1])).to.be.below(1e-3);
    const before = await outputs.style.before();
    expect(rmsBetween(before.planes[1], outputs.style.picture.planes[1])).to.be.below(1e-3);
  });

  it('take the place of the derived map, and what hangs on height follows', async () => {
    const flat = planeOf(width, height, () => 0.5);
    const outputs = await evaluate({
      height: { planes: [flat] },
      roughness: { planes: [flat.map(() => 0.3)] },
    });
    expect(farthest(outputs.relief.height, new Float32Array(65536).fill(0.5))).to.be.below(1e-4);
    expect(farthest(outputs.relief.normal.planes[2], new Float32Array(65536).fill(1))).to.be.below(1e-5);
    expect(farthest(outputs.relief.occlusion!, new Float32Array(65536).fill(1))).to.be.below(1e-4);
    expect(farthest(outputs.finish.roughness, new Float32Array(65536).fill(0.3))).to.be.below(1e-4);
    expect(mapRaster(surfaceOf(outputs), 'cavity')!.planes[0][77]).to.equal(0.5);
  });

  it('of another size but the same shape fit too, brought down as data and not as colour', async () => {
    const large = { width: 4 * width, height: 4 * height };
    const checks = planeOf(large.width, large.height, (x, y) => (x + y) % 2);
    const outputs = await evaluate({ roughness: { planes: [checks], ...large } });
    expect(farthest(outputs.finish.roughness, new Float32Array(65536).fill(0.5))).to.be.below(2e-3);
  });

  it('an opacity map stands for alpha', async () => {
    const half = planeOf(width, height, () => 0.25);
    const outputs = await evaluate({ opacity: { planes: [half] } });
    expect(
      farthest(mapRaster(surfaceOf(outputs), 'opacity')!.planes[0], new Float32Array(65536).fill(0.25)),
    ).to.be.below(1e-4);
  });

  it('normals are turned with the picture, not only resampled', async () => {
    const tilt = [0.3, 0.4, Math.sqrt(1 - 0.25)];
    const planes = tilt.map((v) => planeOf(width, height, () => (v + 1) / 2));
    const outputs = await evaluate({ normal: { planes } }, { square: { turnDegrees: 30 } });
    const [x, y, z] = outputs.relief.normal.planes.map((p) => p[128 * 256 + 128]);
    // The crop lies 30° clockwise, so in it the same direction stands 30° counter-clockwise (y is up).
    const turn = (30 * Math.PI) / 180;
    expect(x).to.be.closeTo(0.3 * Math.cos(turn) - 0.4 * Math.sin(turn), 1e-3);
    expect(y).to.be.closeTo(0.3 * Math.sin(turn) + 0.4 * Math.cos(turn), 1e-3);
    expect(z).to.be.closeTo(tilt[2], 1e-3);
  });

  it('normals whose green points down are turned over, whatever the way of those that leave', async () => {
    const planes = [0.5, 0.8, 0.9].map((v) => planeOf(width, height, () => v));
    const y = async (givenGreen: 'up' | 'down', normalY: 'up' | 'down') => {
      const outputs = await evaluate({ normal: { planes } }, { relief: { normalY } }, { givenGreen });
      return outputs.relief.normal.planes[1][128 * 256 + 128];
    };
    const up = await y('up', 'up');
    expect(up).to.be.above(0.4);
    expect(await y('down', 'up')).to.be.closeTo(-up, 1e-3);
    expect(await y('up', 'down')).to.be.closeTo(-up, 1e-3);
    expect(await y('down', 'down')).to.be.closeTo(up, 1e-3);
  });

  it('gloss stands for roughness turned over', async () => {
    const outputs = await evaluate({ gloss: { planes: [planeOf(width, height, () => 0.25)] } });
    expect(farthest(outputs.finish.roughness, new Float32Array(65536).fill(0.75))).to.be.below(1e-4);
  });

  it('a turn keeps the length of normals and the way their green points', () => {
    const codes = new Raster(
      1,
      1,
      [0.9, 0.5, 0.8].map((v) => Float32Array.of(v)),
    );
    const up = turnedNormals(codes, 90, true).planes.map((p) => p[0]);
    const down = turnedNormals(codes, 90, false).planes.map((p) => p[0]);
    expect(Math.hypot(...up)).to.be.closeTo(1, 1e-6);
    expect(up[1]).to.be.above(0.7);
    expect(down[1]).to.be.below(-0.7);
  });
});
