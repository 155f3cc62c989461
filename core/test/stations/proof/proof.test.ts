import { findRepeats, Raster, type Repair, repeatFigure, roll, STATIONS, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { repaired } from '../../../src/stations/join/repair/apply.ts';
import { PLAIN_CONTEXT } from '../../../src/team/context.ts';
import { farthest, noisePlane, planeOf, rmsBetween } from '../../fields.ts';
import { frameOf } from '../run.ts';

const size = 256;
const grain = (seed = 1) =>
  new Raster(
    size,
    size,
    [seed, seed + 1, seed + 2].map((one) => noisePlane(size * size, one).map((v) => 0.3 + 0.06 * v)),
  );
const ODD: [number, number, number][] = [
  [40, 60, 7],
  [150, 30, 10],
  [210, 140, 6],
  [90, 190, 12],
  [3, 250, 8],
];
/** Grain with odd features of a tenth more or less light; one lies over the corner. */
const planted = (contrast = 0.1) => {
  const away = (a: number, b: number) => Math.min(Math.abs(a - b), size - Math.abs(a - b));
  const factor = planeOf(size, size, (x, y) =>
    ODD.reduce(
      (sum, [cx, cy, r], k) =>
        sum + (k % 2 ? 1 : -1) * contrast * Math.exp(-(away(x, cx) ** 2 + away(y, cy) ** 2) / (2 * r * r)),
      1,
    ),
  );
  return grain().mapPlanes((plane) => plane.map((v, i) => v * factor[i]));
};
const near = (value: number, at: number) => Math.min(Math.abs(value - at), 1 - Math.abs(value - at)) < 0.03;

const calmed = (picture: Raster, repairs: Repair[]) =>
  repaired(
    picture,
    { picture, margins: { left: 0, right: 0, top: 0, bottom: 0 } },
    repairs,
    'colour',
    'test',
    TORUS,
    PLAIN_CONTEXT,
  );
const calm = (x: number, y: number, radius: number, strength = 0.85): Repair => ({
  kind: 'calm',
  x: x / size,
  y: y / size,
  radius: radius / size,
  strength,
  was: 7,
});

describe('odd features of a tile', () => {
  it('are all found at a tenth of contrast, with at most one that is none', async () => {
    const found = await findRepeats(planted(), TORUS);
    for (const [x, y] of ODD) {
      expect(
        found.some((spot) => near(spot.x, x / size) && near(spot.y, y / size)),
        `${x} ${y}`,
      ).to.equal(true);
    }
    const false_ = found.filter(
      (spot) => !ODD.some(([x, y]) => near(spot.x, x / size) && near(spot.y, y / size)),
    );
    expect(false_.length).to.be.at.most(1);
  });

  it('are none on stationary noise', async () => {
    for (const seed of [1, 11, 21, 31]) expect(await findRepeats(grain(seed), TORUS)).to.have.length(0);
  });

  it('toned down no longer stand out: the repeat figure is at most half', async () => {
    const picture = planted();
    const before = repeatFigure(await findRepeats(picture, TORUS));
    const out = await calmed(
      picture,
      ODD.map(([x, y, r]) => calm(x, y, 2.6 * r)),
    );
    expect(repeatFigure(await findRepeats(out, TORUS))).to.be.at.most(before / 2);
    expect(before).to.be.above(3);
  });

  it('keep their grain, and what lies outside stays to the bit', async () => {
    const picture = planted();
    const out = await calmed(picture, [calm(90, 190, 30)]);
    let [inside, outside] = [0, 0];
    for (let y = 0; y < size; y++) {
      for (let x = 0; x < size; x++) {
        const i = y * size + x;
        if (Math.hypot(x + 0.5 - 90, y + 0.5 - 190) > 42)
          outside = Math.max(outside, Math.abs(out.planes[1][i] - picture.planes[1][i]));
        else if (x > 0) {
          // Steps between neighbours are grain.
          const step = (p: Float32Array) => p[i] - p[i - 1];
          inside = Math.max(inside, Math.abs(step(out.planes[1]) - step(picture.planes[1])));
        }
      }
    }
    expect(outside).to.equal(0);
    expect(inside).to.be.below(0.02);
    expect(rmsBetween(out.planes[1], picture.planes[1])).to.be.above(1e-4);
  });

  it('are toned down across the edge as inside', async () => {
    const picture = planted();
    const over = await calmed(picture, [calm(3, 250, 20)]);
    const moved = await calmed(roll(picture, 100, -100), [calm(103, 150, 20)]);
    expect(farthest(roll(over, 100, -100).planes[0], moved.planes[0])).to.be.below(2e-4);
  });
});

describe('Proof', () => {
  it('says how many spots repeat, and the pixels for each metre', async () => {
    const frame = frameOf(size, 0.5);
    const { proof } = STATIONS;
    const of = async (albedo: Raster) => {
      const flat = new Float32Array(size * size).fill(0.5);
      const up = flat.map(() => 1);
      const none = flat.map(() => 0);
      const alpha = flat.map((_, i) => (i % 4 === 0 ? 0 : 1));
      const surface = {
        opacity: alpha,
        colour: albedo,
        relief: flat,
        normal: new Raster(size, size, [none, none, up]),
      } as never;
      const output = await proof.run(surface, { most: 8 }, null, frame, PLAIN_CONTEXT);
      return proof.verdict(output, surface, { most: 8 }, null, frame, PLAIN_CONTEXT);
    };
    const odd = await of(planted(0.2));
    expect(odd.state).to.equal('look');
    expect(odd.sentence).to.match(/5 visible repeats.*512 px\/m/);
    expect(odd.figures.find(({ id }) => id === 'density')?.value).to.equal(512);
    expect(odd.figures.find(({ id }) => id === 'holes')?.value).to.equal(25);
    expect(odd.figures.find(({ id }) => id === 'told')?.value).to.equal(0);
    expect((await of(grain())).sentence).to.include('Nothing stands out');
  });
});
