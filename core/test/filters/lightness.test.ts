import { Raster } from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { linearToOklab } from '../../src/colour/oklab.ts';
import { lightnessOf } from '../../src/filters/lightness.ts';
import { PLAIN_CONTEXT } from '../../src/team/context.ts';
import { withBothKernels } from '../kernels/both.ts';

const channel = fc.double({ min: 0, max: 1, noNaN: true });

withBothKernels('lightness', () => {
  it('is L of OKLab of each pixel by itself', async () => {
    const colours = fc.array(fc.tuple(channel, channel, channel), { minLength: 4, maxLength: 4 });
    await fc.assert(
      fc.asyncProperty(colours, async (pixels) => {
        const planes = [0, 1, 2].map((c) => Float32Array.from(pixels, (pixel) => pixel[c]));
        const found = await lightnessOf(new Raster(2, 2, planes), PLAIN_CONTEXT);
        for (const [k, [r, g, b]] of pixels.entries()) {
          expect(found[k]).to.be.closeTo(linearToOklab(r, g, b)[0], 2e-5);
        }
      }),
    );
  });

  it('of white is 1, of black 0, and grows with light', async () => {
    const grey = Float32Array.of(0, 0.05, 0.18, 0.5, 0.8, 1);
    const found = await lightnessOf(new Raster(6, 1, [grey, grey, grey]), PLAIN_CONTEXT);
    expect(found[0]).to.be.closeTo(0, 1e-3);
    expect(found[5]).to.be.closeTo(1, 1e-3);
    for (let k = 1; k < 6; k++) expect(found[k]).to.be.above(found[k - 1]);
  });
});
