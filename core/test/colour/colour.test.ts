import {
  KERNELS,
  linearTable,
  linearToOklab,
  linearToSrgb,
  luminance,
  oklabToLinear,
  Raster,
  srgbToLinear,
} from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';

describe('sRGB', () => {
  it('goes there and back for every value', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (v) => {
        expect(srgbToLinear(linearToSrgb(v))).to.be.closeTo(v, 1e-7);
      }),
    );
  });

  it('stands where the standard says', () => {
    expect(srgbToLinear(0.04045)).to.be.closeTo(0.0031308, 1e-7);
    expect(linearToSrgb(0.18)).to.be.closeTo(0.46135, 1e-5);
    expect(srgbToLinear(1)).to.equal(1);
  });

  it('keeps every code of 8 and 16 bits through the tables', () => {
    for (const bits of [8, 16] as const) {
      const table = linearTable(bits);
      const full = table.length - 1;
      const codes = KERNELS.encodeSrgbPlane(table).map((v) => Math.round(v * full));
      expect(codes.every((code, i) => code === i)).to.equal(true);
    }
  });

  it('clamps what lies outside', () => {
    expect([...KERNELS.encodeSrgbPlane(Float32Array.from([-1, 0, 2, Number.NaN]))]).to.deep.equal([
      0, 0, 1, 0,
    ]);
  });
});

describe('luminance and OKLab', () => {
  it('white is 1, the weights are those of the standard', () => {
    const of = (r: number, g: number, b: number) =>
      luminance(
        new Raster(
          1,
          1,
          [r, g, b].map((v) => Float32Array.of(v)),
        ),
      )[0];
    expect(of(1, 1, 1)).to.be.closeTo(1, 1e-6);
    expect(of(0, 1, 0)).to.be.closeTo(0.7152, 1e-6);
  });

  it('OKLab knows white and red, and comes back', () => {
    const [L, a, b] = linearToOklab(1, 1, 1);
    expect(L).to.be.closeTo(1, 1e-6);
    expect(Math.hypot(a, b)).to.be.below(1e-6);
    const red = linearToOklab(1, 0, 0);
    expect(red[0]).to.be.closeTo(0.62796, 1e-4);
    expect(red[1]).to.be.closeTo(0.22486, 1e-4);
    expect(red[2]).to.be.closeTo(0.12585, 1e-4);
    const unit = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(unit, unit, unit, (r, g, bb) => {
        const back = oklabToLinear(...linearToOklab(r, g, bb));
        expect(back[0]).to.be.closeTo(r, 1e-5);
        expect(back[1]).to.be.closeTo(g, 1e-5);
        expect(back[2]).to.be.closeTo(bb, 1e-5);
      }),
    );
  });
});
