import { linearTable, luminance, Raster, recipeProblems } from '@zesty-tile/core';
import { DEMO_IDS, demoRecipe, makeSource } from '@zesty-tile/demo';
import { expect } from 'chai';

const WIDTH = 240;

/** Correlation of two planes. */
function correlation(a: ArrayLike<number>, b: ArrayLike<number>): number {
  const n = a.length;
  let [ma, mb] = [0, 0];
  for (let i = 0; i < n; i++) {
    ma += a[i] / n;
    mb += b[i] / n;
  }
  let [ab, aa, bb] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    ab += (a[i] - ma) * (b[i] - mb);
    aa += (a[i] - ma) ** 2;
    bb += (b[i] - mb) ** 2;
  }
  return ab / Math.sqrt(aa * bb);
}

const linear = (samples: Uint8Array, width: number, height: number) => {
  const table = linearTable(8);
  return new Raster(
    width,
    height,
    [0, 1, 2].map((c) => Float32Array.from({ length: width * height }, (_, i) => table[samples[3 * i + c]])),
  );
};

describe('demo sources', () => {
  for (const id of DEMO_IDS) {
    it(`${id}: a photo that keeps to its range, the same each time, with the truth beside it`, () => {
      const source = makeSource(id, WIDTH);
      expect([source.width, source.height]).to.deep.equal([WIDTH, 180]);
      expect(makeSource(id, WIDTH).samples).to.deep.equal(source.samples);
      const clipped = source.samples.filter((v) => v === 255 || v === 0).length / source.samples.length;
      expect(clipped).to.be.below(0.02);
      const span = (plane: Float32Array) => Math.max(...plane) - Math.min(...plane);
      expect(span(source.lightLog[1])).to.be.above(0.2);
      expect(span(source.scene.relief)).to.be.above(1);
      for (const plane of source.scene.albedo) {
        expect(Math.min(...plane)).to.be.above(0);
        expect(Math.max(...plane)).to.be.below(0.95);
      }
    });

    it(`${id}: its known light is really in the picture`, () => {
      const { samples, width, height, lightLog, scene } = makeSource(id, WIDTH);
      const seen = luminance(linear(samples, width, height));
      const albedo = luminance(new Raster(width, height, scene.albedo));
      const shade = seen.map((v, i) => Math.log(v + 0.01) - Math.log(albedo[i] + 0.01));
      expect(correlation(shade, lightLog[1])).to.be.above(0.3);
    });

    it(`${id}: its recipe is sound`, () => {
      expect(recipeProblems(demoRecipe(id))).to.deep.equal([]);
    });
  }

  it('one holds a grey card of known reflectance', () => {
    const { scene } = makeSource('ripples', WIDTH);
    const onCard = scene.albedo[0].filter(
      (v, i) => v === Math.fround(0.18) && scene.albedo[2][i] === v,
    ).length;
    expect(onCard).to.be.above(60);
  });
});
