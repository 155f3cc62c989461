import { atrousBands, GRADIENT_KERNELS, gaussian, MIRROR, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { firKernel } from '../../src/kernels/gaussian-fir/reference.ts';
import { KERNELS } from '../../src/kernels/kernels.ts';
import { gradient } from '../../src/raster/gradient.ts';
import { ALL_EDGES, farthest, noisePlane, planeOf, rmsBetween } from '../fields.ts';
import { withBothKernels } from '../kernels/both.ts';

withBothKernels('Gaussian', () => {
  const size = 128;
  const noise = noisePlane(size * size, 11);

  for (const [sigma, bound] of [
    [4, 7e-3],
    [16, 1e-3],
  ]) {
    it(`recursive at σ ${sigma} errs on white noise by at most ${bound}`, () => {
      for (const edges of ALL_EDGES) {
        const exact = new Float32Array(noise.length);
        const field = { width: size, height: size, edges };
        KERNELS.gaussianFirBand(noise, exact, field, firKernel(sigma), { from: 0, to: size });
        const quick = gaussian(noise, size, size, sigma, edges);
        expect(farthest(quick, exact)).to.be.within(1e-9, bound);
      }
    });
  }

  it('keeps the mean and a constant', () => {
    for (const sigma of [0.8, 2, 5, 40]) {
      const flat = gaussian(new Float32Array(64 * 64).fill(0.37), 64, 64, sigma, TORUS);
      expect(farthest(flat, new Float32Array(64 * 64).fill(0.37))).to.be.below(1e-5);
    }
  });

  it('spreads a point to the wanted variance', () => {
    for (const sigma of [1.5, 3.5, 6]) {
      const point = planeOf(129, 129, (x, y) => (x === 64 && y === 64 ? 1 : 0));
      const spread = gaussian(point, 129, 129, sigma, MIRROR);
      let variance = 0;
      for (let i = 0; i < spread.length; i++) variance += spread[i] * ((i % 129) - 64) ** 2;
      expect(Math.sqrt(variance), `σ ${sigma}`).to.be.closeTo(sigma, 0.02 * sigma);
    }
  });

  it('at no width gives a copy, not the same array', () => {
    const out = gaussian(noise, size, size, 0, TORUS);
    expect(farthest(out, noise)).to.equal(0);
    expect(out).not.to.equal(noise);
  });

  it('on the torus is what it is on the plane laid many times, however wide', () => {
    const [width, height, across, down] = [20, 12, 30, 40];
    const plane = noisePlane(width * height, 8);
    const many = planeOf(width * across, height * down, (x, y) => plane[(y % height) * width + (x % width)]);
    for (const sigma of [3.5, 9, 25]) {
      const own = gaussian(plane, width, height, sigma, TORUS);
      const laid = gaussian(many, width * across, height * down, sigma, MIRROR);
      // Far from where the many end.
      const [left, top] = [15 * width, 20 * height];
      const middle = planeOf(width, height, (x, y) => laid[(top + y) * width * across + left + x]);
      expect(farthest(own, middle), `σ ${sigma}`).to.be.below(2e-5);
    }
  });

  it('of an eighth and a third of a long line is a Gaussian still', () => {
    const [length, lines] = [1024, 8];
    const plane = planeOf(
      length,
      lines,
      (x) => 0.5 + 0.2 * Math.cos((2 * Math.PI * x) / length) + 0.1 * (x % 3),
    );
    for (const sigma of [length / 8, length / 3]) {
      const blurred = gaussian(plane, length, lines, sigma, { x: 'wrap', y: 'mirror' });
      // A wave is damped by e^(−(2πσ/n)²/2), and nothing of the grain is left.
      const damped = Math.exp(-0.5 * ((2 * Math.PI * sigma) / length) ** 2);
      const exact = planeOf(length, lines, (x) => 0.6 + 0.2 * damped * Math.cos((2 * Math.PI * x) / length));
      expect(farthest(blurred, exact), `σ ${sigma}`).to.be.below(2e-3);
    }
  });

  it('is wider than the plane without breaking', () => {
    const out = gaussian(noisePlane(8 * 8), 8, 8, 30, TORUS);
    expect(rmsBetween(out, new Float32Array(64).fill(out[0]))).to.be.below(1e-3);
  });
});

withBothKernels('à trous bands', () => {
  it('sum to the input on every kind of edge', () => {
    const plane = noisePlane(48 * 40, 2);
    for (const edges of ALL_EDGES) {
      for (const levels of [0, 1, 5]) {
        const bands = atrousBands(plane, 48, 40, levels, edges);
        expect(bands).to.have.length(levels + 1);
        const sum = plane.map((_, i) => bands.reduce((s, band) => s + band[i], 0));
        expect(farthest(sum, plane)).to.be.below(1e-6);
      }
    }
  });

  it('put fine detail into the first and broad shape into the last', () => {
    const fine = planeOf(64, 64, (x, y) => ((x + y) % 2 ? 1 : -1));
    const bands = atrousBands(fine, 64, 64, 3, TORUS);
    expect(farthest(bands[0], fine)).to.be.below(1e-6);
    expect(farthest(bands[3], new Float32Array(64 * 64))).to.be.below(1e-6);
  });
});

withBothKernels('gradient kernels', () => {
  it('give the slope of a ramp away from the edge', () => {
    const ramp = planeOf(16, 16, (x, y) => 0.25 * x - 0.5 * y);
    for (const kernel of GRADIENT_KERNELS) {
      const { gx, gy } = gradient(ramp, 16, 16, kernel, MIRROR);
      expect(gx[8 * 16 + 8], kernel).to.be.closeTo(0.25, 1e-6);
      expect(gy[8 * 16 + 8], kernel).to.be.closeTo(-0.5, 1e-6);
    }
  });

  it('sharp is the most exact on a wave, and of fourth order', () => {
    const errorOf = (kernel: (typeof GRADIENT_KERNELS)[number], waves: number) => {
      const k = (2 * Math.PI * waves) / 64;
      const plane = planeOf(64, 64, (x) => Math.sin(k * x));
      const truth = planeOf(64, 64, (x) => k * Math.cos(k * x));
      return rmsBetween(gradient(plane, 64, 64, kernel, TORUS).gx, truth) / k;
    };
    for (const kernel of GRADIENT_KERNELS.slice(1)) {
      expect(errorOf('sharp', 4)).to.be.below(0.1 * errorOf(kernel, 4));
    }
    expect(errorOf('sharp', 4) / errorOf('sharp', 2)).to.be.within(14, 18);
  });
});
