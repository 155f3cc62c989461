import {
  Engine,
  mapRaster,
  Raster,
  SHAPES,
  type Shape,
  sidesOf,
  surfaceOf,
  type TileOutputs,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { rmsBetween } from '../fields.ts';
import { wall } from '../stations/join/surfaces.ts';
import { hostOf, photo, pixelsOf, recipeWith } from './host.ts';

const [width, height] = [400, 300];
const source = { sha256: 'photo', width, height };

async function made(
  picture: Raster,
  shape: Shape,
  size: number,
  changes: Parameters<typeof recipeWith>[0] = {},
) {
  const recipe = recipeWith({ ...changes, square: { shape, share: 0.7, ...changes.square } });
  const engine = new Engine(hostOf(pixelsOf(picture)), 2 ** 28);
  const of = { ...source, width: picture.width, height: picture.height };
  return engine.evaluate({ recipe, source: of, size });
}

describe('tiles of two to one', () => {
  for (const shape of SHAPES) {
    it(`${shape}: every map has its sides, and meets itself on both axes`, async () => {
      const { outputs, verdicts } = await made(photo(width, height), shape, 256);
      const maps = outputs as TileOutputs;
      const sides = sidesOf(shape, 256);
      for (const map of ['albedo', 'normal', 'height', 'occlusion', 'cavity', 'roughness'] as const) {
        const raster = mapRaster(surfaceOf(maps), map)!;
        expect({ width: raster.width, height: raster.height }, map).to.deep.equal(sides);
      }
      for (const file of outputs.crate!.files) {
        expect([file.width, file.height], file.ending).to.deep.equal([sides.width, sides.height]);
      }
      const seam = (id: string) => verdicts.join!.figures.find((one) => one.id === id)!.value;
      expect(seam('seamX')).to.be.below(1.3);
      expect(seam('seamY')).to.be.below(1.3);
    });
  }

  it('show as much of the photo along the longer edge, with square pixels', async () => {
    const wide = (await made(photo(width, height), '2:1', 256)).outputs;
    const whole = (await made(photo(width, height), '1:1', 256, { square: { share: 1 } })).outputs;
    // The largest crop is 400 px wide: at a share of 0.7 it holds 280 × 140 of them.
    expect(wide.square!.cropPixels).to.be.closeTo(280, 0.5);
    expect(whole.square!.cropPixels).to.be.closeTo(300, 0.5);
  });

  it('are the same when photo and tile are turned on their side', async () => {
    const upright = photo(width, height);
    const turned = { width: height, height: width };
    const flip = (plane: Float32Array) =>
      Float32Array.from({ length: plane.length }, (_, i) => {
        const [x, y] = [i % turned.width, Math.floor(i / turned.width)];
        return plane[x * width + y];
      });
    const onSide = new Raster(turned.width, turned.height, upright.planes.map(flip));
    // Nothing that treats the axes apart: the crop alone, evened.
    const none = { join: { method: 'none' as const } };
    const wide = (await made(upright, '2:1', 256, none)).outputs as TileOutputs;
    const tall = (await made(onSide, '1:2', 256, none)).outputs as TileOutputs;
    const back = (plane: Float32Array, w: number, h: number) =>
      Float32Array.from({ length: plane.length }, (_, i) => plane[(i % w) * h + Math.floor(i / w)]);
    for (const map of ['albedo', 'height', 'occlusion', 'cavity'] as const) {
      const a = mapRaster(surfaceOf(wide), map)!;
      const b = mapRaster(surfaceOf(tall), map)!;
      expect(rmsBetween(a.planes[0], back(b.planes[0], 256, 128)), map).to.be.below(0.01);
    }
  });

  it('of a wall take whole periods on both axes', async () => {
    const { outputs, recipe } = await made(
      wall(600, { across: 50, down: 36, turnDegrees: 0, even: true }),
      '2:1',
      512,
      { join: { from: 'found' }, square: { share: 0.8 } },
    );
    const { vectors, by } = recipe.decisions.join!.data as {
      vectors: { u: [number, number]; v: [number, number] };
      by: string;
    };
    expect(by).to.equal('lattice');
    // 480 photo pixels over the crop's width, 240 over its height.
    const blocks = (vectors.u[0] * 480) / 50;
    const rows = (vectors.v[1] * 240) / 36;
    expect(blocks).to.be.closeTo(Math.round(blocks), 0.03);
    expect(rows).to.be.closeTo(Math.round(rows), 0.03);
    expect(outputs.join!.picture.height).to.equal(256);
  });

  it('made larger from the decisions of the working size are the same tile', async () => {
    const picture = photo(width, height);
    const small = await made(picture, '2:1', 512);
    const engine = new Engine(hostOf(pixelsOf(picture)), 2 ** 28);
    const large = await engine.evaluate({ recipe: small.recipe, source, size: 1024, until: 'join' });
    const [coarse] = small.outputs.join!.picture.planes;
    const fine = large.outputs.join!.picture;
    expect([fine.width, fine.height]).to.deep.equal([1024, 512]);
    let far = 0;
    for (let y = 0; y < 256; y++) {
      for (let x = 0; x < 512; x++) {
        const at = 2 * y * 1024 + 2 * x;
        const [plane] = fine.planes;
        const mean = (plane[at] + plane[at + 1] + plane[at + 1024] + plane[at + 1025]) / 4;
        if (Math.abs(mean - coarse[y * 512 + x]) > 0.02) far++;
      }
    }
    expect(far / (512 * 256)).to.be.below(0.01);
  });
});
