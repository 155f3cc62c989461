import { decodePicture, encodeForScreen, readFacts } from '@zesty-tile/codecs';
import { Problem, reducePixels } from '@zesty-tile/core';
import { expect } from 'chai';
import sharp from 'sharp';
import { exrFile } from './exr-file.ts';

const colour = {
  R: (x: number) => x / 50,
  G: (_x: number, y: number) => y / 40,
  B: () => 3.5,
};

describe('OpenEXR', () => {
  it('is read as linear floats, rows from the top, above white too', async () => {
    const bytes = exrFile(50, 40, colour);
    expect(await readFacts(bytes)).to.deep.equal({
      width: 50,
      height: 40,
      format: 'OpenEXR',
      bits: 32,
      hasAlpha: false,
    });
    const { data, channels, width, height } = await decodePicture(bytes);
    expect([width, height, channels]).to.deep.equal([50, 40, 3]);
    expect(data).to.be.instanceOf(Float32Array);
    const at = (x: number, y: number) => Array.from(data.subarray(3 * (y * 50 + x), 3 * (y * 50 + x) + 3));
    expect(at(10, 4)[0]).to.be.closeTo(0.2, 1e-6);
    expect(at(10, 4)[1]).to.be.closeTo(0.1, 1e-6);
    expect(at(49, 39)[1]).to.be.closeTo(39 / 40, 1e-6);
    expect(at(0, 0)[2]).to.equal(3.5);
  });

  it('of one channel is grey; alpha is kept', async () => {
    const grey = await decodePicture(exrFile(40, 32, { Y: (x, y) => x + 100 * y }));
    expect(Array.from(grey.data.subarray(3 * 45, 3 * 45 + 3))).to.deep.equal([105, 105, 105]);
    const bytes = exrFile(40, 32, { ...colour, A: (x) => (x < 20 ? 1 : 0.25) });
    expect((await readFacts(bytes)).hasAlpha).to.equal(true);
    const { data, channels } = await decodePicture(bytes);
    expect(channels).to.equal(4);
    expect([data[3], data[4 * 30 + 3]]).to.deep.equal([1, 0.25]);
  });

  it('is brought down by the mean of its floats', async () => {
    const pixels = await decodePicture(exrFile(64, 64, { R: (x) => (x % 2) * 8, G: () => 1, B: () => 0 }));
    const small = reducePixels(pixels, 2);
    expect([small.width, small.height]).to.deep.equal([32, 32]);
    expect(Array.from(small.data.subarray(0, 3))).to.deep.equal([4, 1, 0]);
  });

  it('is shown on screen as sRGB, white at most', async () => {
    const webp = await encodeForScreen(exrFile(40, 32, { R: () => 0.2140411, G: () => 9, B: () => -1 }), 64);
    const { data } = await sharp(webp).raw().toBuffer({ resolveWithObject: true });
    expect([data[0], data[1], data[2]]).to.deep.equal([127, 255, 0].map((v, k) => (k === 0 ? data[0] : v)));
    expect(data[0]).to.be.within(126, 129);
  });

  it('that breaks off, or holds no size, is refused in plain words', async () => {
    const whole = exrFile(50, 40, colour);
    for (const bytes of [whole.subarray(0, 60), whole.subarray(0, whole.length - 900)]) {
      const problem = await decodePicture(bytes).then(
        () => null,
        (error) => error,
      );
      expect(problem, `${bytes.length} bytes`).to.be.instanceOf(Problem);
      expect(problem.code).to.equal('damaged');
    }
  });
});
