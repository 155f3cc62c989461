import {
  agreementOf,
  checksOf,
  newRecipe,
  type Raster,
  type StationName,
  TORUS,
  type Verdict,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { GRADIENT_KERNELS } from '../../src/raster/gradient.ts';
import { normalMap } from '../../src/stations/relief/normal-map.ts';
import { noisePlane, planeOf } from '../fields.ts';

const size = 128;
const waves = (flip = 1) =>
  planeOf(size, size, (x, y) => {
    const [a, b] = [(2 * Math.PI * x) / size, (2 * Math.PI * y) / size];
    return 0.5 + flip * 0.25 * (Math.sin(3 * a) * Math.cos(2 * b) + 0.5 * Math.sin(5 * b + a));
  });
/** Unit normals of a height whose whole is `depth` of the edge, y up. */
const normalsOf = (height: Float32Array, depth: number, green: 1 | -1 = 1): Raster =>
  normalMap(
    height,
    { width: size, height: size },
    depth,
    1,
    GRADIENT_KERNELS[0],
    green === 1 ? 'up' : 'down',
    TORUS,
  );

describe('whether maps agree', () => {
  it('a normal map of a height integrates to that height and its depth, green up and down', async () => {
    for (const green of [1, -1] as const) {
      for (const depth of [0.02, 0.08]) {
        const { apart, depth: told } = await agreementOf(normalsOf(waves(), depth, green), waves(), green);
        expect(apart).to.be.below(0.05);
        expect(told / depth).to.be.closeTo(1, 0.03);
      }
    }
  });

  it('another height, one turned inside out, and a wrong sign of green are told', async () => {
    const normal = normalsOf(waves(), 0.05);
    expect((await agreementOf(normal, noisePlane(size * size, 4), 1)).apart).to.be.above(0.9);
    expect((await agreementOf(normal, waves(-1), 1)).depth).to.be.below(0);
    expect((await agreementOf(normal, waves(), -1)).apart).to.be.above(0.5);
  });

  it('flat maps agree; a relief that ships without a height does not', async () => {
    const flat = new Float32Array(size * size).fill(0.5);
    expect(await agreementOf(normalsOf(flat, 0.05), flat, 1)).to.deep.equal({ apart: 0, depth: 0 });
    expect((await agreementOf(normalsOf(waves(), 0.05), flat, 1)).apart).to.equal(1);
  });
});

describe('the list of checks', () => {
  const figures = (all: Record<string, number>, limits: Record<string, number> = {}) =>
    Object.entries(all).map(([id, value]) => ({ id, label: id, value, unit: '', limit: limits[id] }));
  const verdict = (state: Verdict['state'], all: Record<string, number>, limits = {}): Verdict => ({
    state,
    brief: '',
    sentence: 'Measured.',
    advice: '',
    figures: figures(all, limits),
  });
  const good = (): Partial<Record<StationName, Verdict>> => ({
    square: verdict('fine', {}),
    even: verdict('fine', { after: 2 }, { after: 3 }),
    join: verdict('fine', { blotchX: 0.4, blotchY: 0.7 }),
    gauge: verdict('fine', { median: 0.3, inBand: 80, beyond: 0.2 }),
    relief: verdict(
      'fine',
      { length: 0, tilt: 0.001, steep: 0.1, steepest: 40 },
      { length: 1e-3, tilt: 0.02, steep: 2 },
    ),
    finish: verdict('fine', { low: 0.7, middle: 0.8, high: 0.9 }),
    proof: verdict('fine', { repeat: 1.2, strongest: 7, apart: 3, told: 6 }),
    crate: {
      ...verdict('fine', {}),
      figures: [{ id: 'albedo', label: 'Seam of albedo', value: 0.8, unit: '' }],
    },
  });
  const stations = () => {
    const made = newRecipe().stations;
    made.relief.depthMm = 6;
    return made;
  };
  const states = (verdicts: Partial<Record<StationName, Verdict>>, density: number | null = null) =>
    Object.fromEntries(
      checksOf({ verdicts, stations: stations(), density }).map(({ id, state }) => [id, state]),
    );

  it('names everything that is measured, each with a sentence and a station that mends it', () => {
    const list = checksOf({ verdicts: good(), stations: stations(), density: 1024 });
    expect(list.map(({ id }) => id)).to.deep.equal([
      'size',
      'seam',
      'blotch',
      'drift',
      'band',
      'limits',
      'normal',
      'green',
      'slope',
      'roughness',
      'repeat',
      'density',
      'agree',
      'opacity',
    ]);
    for (const { sentence, figure, station } of list) {
      expect(sentence).to.match(/\.$|\d$/);
      expect(figure).not.to.equal('');
      expect(station).to.be.a('string');
    }
    expect(checksOf({ verdicts: {}, stations: stations(), density: null })).to.deep.equal([]);
  });

  for (const [id, station, change] of [
    ['blotch', 'join', { blotchX: 1.4 }],
    ['limits', 'gauge', { beyond: 3 }],
    ['normal', 'relief', { tilt: 0.03 }],
    ['slope', 'relief', { steep: 5 }],
    ['repeat', 'proof', { strongest: 12 }],
    ['agree', 'proof', { apart: 40 }],
    ['agree', 'proof', { told: 3 }],
  ] as const) {
    it(`says “${id}” where ${JSON.stringify(change)} is beyond its limit, and nothing else`, () => {
      const verdicts = good();
      for (const figure of verdicts[station]!.figures) {
        if (figure.id in change) figure.value = (change as Record<string, number>)[figure.id];
      }
      expect(states(verdicts)).to.deep.equal({ ...states(good()), [id]: 'look' });
    });
  }

  it('normals are compared with the depth of the height map, which joints and coats make another than the dial', () => {
    const withProof = (told: number, deep?: number) => ({
      ...good(),
      proof: verdict('fine', { repeat: 1.2, strongest: 7, apart: 3, told, ...(deep ? { deep } : {}) }),
    });
    expect(states(withProof(9)).agree).to.equal('look');
    expect(states(withProof(9, 9)).agree).to.equal('fine');
    expect(states(withProof(6, 9)).agree).to.equal('look');
  });

  it('a seam in any one map is told, and a density far from what is wanted', () => {
    const verdicts = good();
    verdicts.crate!.figures.push({ id: 'normal', label: 'Seam of normal', value: 2, unit: '' });
    expect(states(verdicts).seam).to.equal('look');
    expect(states(good(), 1000).density).to.equal('fine');
    expect(states(good(), 4000).density).to.equal('look');
  });
});
