import { linearToSrgb, type Pixels, reducePixels, reductionFor, srgbToLinear } from '@zesty-tile/core';
import { expect } from 'chai';

const grey = (width: number, height: number, values: number[], channels: 3 | 4 = 3): Pixels => ({
  width,
  height,
  channels,
  data: Uint8Array.from(values),
  originalWidth: width,
  originalHeight: height,
});

describe('the area filter for large sources', () => {
  it('averages light, not codes', () => {
    const { data, width, height } = reducePixels(
      grey(2, 2, [0, 0, 0, 255, 255, 255, 0, 0, 0, 255, 255, 255]),
      2,
    );
    expect([width, height]).to.deep.equal([1, 1]);
    expect(data[0] / 65535).to.be.closeTo(linearToSrgb(0.5), 1e-4);
  });

  it('lets what is transparent have no say in the colour', () => {
    const { data } = reducePixels(grey(2, 2, [200, 0, 0, 255, 0, 0, 0, 0, 200, 0, 0, 255, 0, 0, 0, 0], 4), 2);
    expect(srgbToLinear(data[0] / 65535)).to.be.closeTo(srgbToLinear(200 / 255), 1e-4);
    expect(data[3] / 65535).to.be.closeTo(0.5, 1e-4);
  });

  it('leaves a picture alone that is small enough', () => {
    const pixels = grey(1, 1, [1, 2, 3]);
    expect(reducePixels(pixels, 1)).to.equal(pixels);
    expect(reductionFor({ width: 4000, height: 3000 }, 610)).to.equal(4);
    expect(reductionFor({ width: 500, height: 400 }, 610)).to.equal(1);
  });
});
