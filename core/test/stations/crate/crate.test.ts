import {
  encodedPlanes,
  gaussian,
  KERNELS,
  MIRROR,
  mapsOf,
  PROFILES,
  profileProblems,
  Raster,
  runToEnd,
  safeName,
  TORUS,
} from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { bandSum } from '../../../src/stations/relief/band-sum.ts';
import { bandSigma, detailBands, logOf, weightedSum } from '../../../src/stations/relief/bands.ts';
import { farthest, noisePlane } from '../../fields.ts';

describe('crate', () => {
  it('rounds to the nearest code and clamps, in 8 and 16 bits', () => {
    const plane = Float32Array.of(-1, 0, 0.5, 1 / 255, 1, 2, Number.NaN);
    expect([...KERNELS.quantise([plane], 8)]).to.deep.equal([0, 0, 128, 1, 255, 255, 0]);
    expect(KERNELS.quantise([Float32Array.of(0.5)], 16)[0]).to.equal(32768);
    expect([...KERNELS.quantise([Float32Array.of(0, 1), Float32Array.of(1, 0)], 8)]).to.deep.equal([
      0, 255, 255, 0,
    ]);
  });

  it('passes colour through the curve and data as it is', () => {
    const grey = new Raster(
      1,
      1,
      [0.18, 0.18, 0.18].map((v) => Float32Array.of(v)),
    );
    expect(encodedPlanes(grey, 'albedo')[0][0]).to.be.closeTo(0.4614, 1e-3);
    expect(encodedPlanes(grey, 'specular')[0][0]).to.be.closeTo(0.4614, 1e-3);
    expect(encodedPlanes(new Raster(1, 1, [Float32Array.of(0.18)]), 'roughness')[0][0]).to.be.closeTo(
      0.18,
      1e-7,
    );
    expect(
      encodedPlanes(
        new Raster(
          1,
          1,
          [-1, 0, 1].map((v) => Float32Array.of(v)),
        ),
        'normal',
      ).map((p) => p[0]),
    ).to.deep.equal([0, 0.5, 1]);
  });

  it('every built-in profile is sound, and all but the smallest and the documents hold every map, height in 16 bits', () => {
    const shared = ['cavity', 'emission', 'height', 'normal', 'occlusion', 'opacity', 'specular'];
    for (const [name, profile] of Object.entries(PROFILES)) {
      expect(profileProblems(profile), name).to.deep.equal([]);
      if (name === 'two-maps' || profile.document !== 'none') continue;
      const maps = profile.files.flatMap(mapsOf);
      const own = name.endsWith('gloss') ? ['diffuse', 'gloss'] : ['albedo', 'metallic', 'roughness'];
      expect([...maps].sort(), name).to.deep.equal([...shared, ...own].sort());
      expect(profile.files.filter(({ bits }) => bits === 16).map(({ ending }) => ending)).to.deep.equal([
        'height',
      ]);
    }
  });

  it('makes a name of anything that is safe on every system', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (name) => {
        const safe = safeName(name);
        expect(safe).not.to.match(/[/\\:*?"<>|]|^[. ]|[. ]$/);
        expect(safe.length).to.be.at.most(100);
      }),
    );
    expect(safeName('../../etc/passwd')).to.equal('etc-passwd');
    expect(safeName('Wall, north (2)')).to.equal('Wall- north -2');
    expect(safeName('müde Steine')).to.equal('müde Steine');
  });
});

/** Logarithms of luminance, as bands are taken from it. */
const logged = (y: Float32Array) => runToEnd(logOf(y));

describe('bands', () => {
  it('all of weight one sum to the log picture less its broadest blur', async () => {
    const size = 64;
    const y = noisePlane(size * size, 4).map((v) => 0.1 + 0.5 * v);
    for (const edges of [TORUS, MIRROR]) {
      const bands = await detailBands(logged(y), { width: size, height: size }, edges, async () => {});
      const six = runToEnd(weightedSum(bands, [1, 1, 1, 1, 1, 1]));
      const log = y.map((v) => Math.log(v + 0.01));
      const broad = gaussian(log, size, size, bandSigma(5) * size, edges);
      const rest = log.map((v, i) => v - broad[i]);
      expect(farthest(six, rest)).to.be.below(0.02);
      expect(Math.abs(six.reduce((sum, v) => sum + v, 0) / six.length)).to.be.below(2e-3);
      expect(
        farthest(
          runToEnd(weightedSum(bands, [0, 0, 2, 0, 0, 0])),
          bands[2].map((v) => 2 * v),
        ),
      ).to.equal(0);
    }
  });

  it('summed at half the size and less are those summed whole, cleaned ones too', async () => {
    // Large enough that the two broadest are made smaller.
    const sides = { width: 1024, height: 512 };
    const y = noisePlane(1024 * 512, 8).map((v) => 0.3 + 0.2 * v);
    const weights = [0.4, 0.7, 1, 1.5, 2, 2.5];
    for (const edges of [TORUS, MIRROR]) {
      const whole = runToEnd(
        weightedSum(await detailBands(logged(y), sides, edges, async () => {}), weights),
      );
      const most = whole.reduce((a, b) => Math.max(a, b), 0);
      const shares = weights.map((weight) => ({ weight, clean: (band: Float32Array) => band }));
      const sum = await bandSum(logged(y), sides, edges, async () => {}, shares);
      expect(farthest(sum, whole)).to.be.below(1e-3 * most);
      const without = [{ weight: 1, clean: (band: Float32Array) => band.fill(0) }, ...shares.slice(1)];
      const [first] = await detailBands(logged(y), sides, edges, async () => {});
      const cleaned = await bandSum(logged(y), sides, edges, async () => {}, without);
      expect(
        farthest(
          cleaned,
          whole.map((v, i) => v - 0.4 * first[i]),
        ),
      ).to.be.below(1e-3 * most);
    }
  });
});
