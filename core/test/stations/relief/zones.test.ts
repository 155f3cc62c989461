import { type Mask, Raster, rollPlane, runToEnd, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { insideOf } from '../../../src/stations/relief/zones/readings.ts';
import { correlation, farthest, noisePlane, planeOf } from '../../fields.ts';
import { frameOf, runStation, unpainted } from '../run.ts';
import { JOINTED } from './truth.ts';

const SIZE = 128;
const HALF = SIZE / 2;

/** A grain of tone whose right half is red. */
const grain = noisePlane(SIZE * SIZE, 4).map((value) => 0.3 + 0.2 * value);
const isRed = (x: number) => x >= HALF;
const picture = new Raster(SIZE, SIZE, [
  grain,
  planeOf(SIZE, SIZE, (x, y) => grain[y * SIZE + x] * (isRed(x) ? 0.2 : 1)),
  planeOf(SIZE, SIZE, (x, y) => grain[y * SIZE + x] * (isRed(x) ? 0.1 : 1)),
]);
const stroke = { points: [[0.75, 0.5]] as [number, number][], radius: 0.2, softness: 0, erase: false };
const zone: Mask = {
  id: 'patch',
  name: 'Patch',
  parts: [{ by: 'brush', how: 'and', strokes: [stroke] }],
  wetness: 0,
};

async function reliefWith(zoneReadings: object[], masks: Mask[] = [zone], changes: object = {}) {
  const frame = { ...frameOf(SIZE, 1), masks };
  const given = { style: unpainted(picture) };
  const { output, decided } = await runStation(
    'relief',
    given,
    { depthMm: 4, zoneReadings, ...changes },
    frame,
  );
  const { height, depthMm } = output as { height: Float32Array; depthMm: number };
  return { mm: height.map((value) => value * depthMm), depthMm, decided };
}

const within = (plane: Float32Array) =>
  plane.filter((_value, i) => Math.hypot((i % SIZE) - 96, Math.floor(i / SIZE) - 64) < 20);
const outside = (plane: Float32Array) =>
  plane.filter((_value, i) => Math.hypot((i % SIZE) - 96, Math.floor(i / SIZE) - 64) > 32);
const spread = (plane: Float32Array) => Math.max(...plane) - Math.min(...plane);
const mean = (plane: Float32Array) => plane.reduce((a, b) => a + b, 0) / plane.length;

describe('readings of zones', () => {
  it('leave the height as it is where none is set, and where a zone is gone', async () => {
    const plain = await reliefWith([]);
    const none = await reliefWith([{ zone: 'gone', reading: 'flat', levelMm: 3 }]);
    const same = await reliefWith([{ zone: 'patch', reading: 'rest', levelMm: 0 }]);
    for (const one of [none, same]) expect(farthest(one.mm, plain.mm)).to.equal(0);
    expect(plain.decided.rangeMm).to.equal(undefined);
  });

  it('make a zone flat, or read it the other way round, and nothing else', async () => {
    const plain = await reliefWith([]);
    const flat = await reliefWith([{ zone: 'patch', reading: 'flat', levelMm: 0 }]);
    const inverse = await reliefWith([{ zone: 'patch', reading: 'inverse', levelMm: 0 }]);
    expect(spread(within(flat.mm))).to.be.below(0.01 * spread(within(plain.mm)));
    expect(correlation(within(inverse.mm), within(plain.mm))).to.be.below(-0.99);
    for (const one of [flat, inverse]) {
      expect(correlation(outside(one.mm), outside(plain.mm))).to.be.above(0.999);
    }
  });

  it('raise and lower a zone by mm against the rest; the depth is that of all', async () => {
    const of = (levelMm: number) => reliefWith([{ zone: 'patch', reading: 'flat', levelMm }]);
    const [level, up, down] = [await of(0), await of(6), await of(-6)];
    const step = ({ mm }: { mm: Float32Array }) => mean(within(mm)) - mean(outside(mm));
    expect(step(up) - step(level)).to.be.closeTo(6, 0.05);
    expect(step(down) - step(level)).to.be.closeTo(-6, 0.05);
    expect(up.depthMm).to.be.above(level.depthMm + 2);
  });

  it('rise or dip round from the border to the middle', async () => {
    const of = (reading: string) => reliefWith([{ zone: 'patch', reading, levelMm: 5 }]);
    const [raised, recessed] = [await of('raised'), await of('recessed')];
    const at = ({ mm }: { mm: Float32Array }, x: number) => mm[64 * SIZE + x];
    const flat = await of('flat');
    const ground = at(flat, 96) - 5;
    expect(at(raised, 96) - mean(outside(raised.mm))).to.be.closeTo(ground + 5 - mean(outside(flat.mm)), 0.3);
    expect(at(raised, 96)).to.be.above(at(raised, 84));
    expect(at(raised, 84)).to.be.above(at(raised, 76));
    expect(at(recessed, 96)).to.be.below(at(recessed, 76));
  });

  it('can be of the joints that are carved', async () => {
    const truth = JOINTED['brickwork, dark joints'](256);
    const joints: Mask = {
      id: 'joints',
      name: 'Joints',
      parts: [{ by: 'range', how: 'and', map: 'joints', from: 0.5, to: 1, softness: 0.2 }],
      wetness: 0,
    };
    const frame = { ...frameOf(256, 1.2), masks: [joints] };
    const style = unpainted(new Raster(256, 256, [truth.grey, truth.grey, truth.grey]));
    const depthWith = async (levelMm: number) => {
      const zoneReadings = [{ zone: 'joints', reading: 'rest', levelMm }];
      const changes = { joints: 'dark', jointDepthMm: 4, faceTone: 0, zoneReadings };
      const { output } = await runStation('relief', { style }, changes, frame);
      return output.depthMm as number;
    };
    expect((await depthWith(-5)) - (await depthWith(0))).to.be.closeTo(5, 0.2);
  });

  it('measure how far inside a zone a place is, over edges that wrap, at every size alike', () => {
    const disc = (size: number) =>
      planeOf(size, size, (x, y) => {
        const [dx, dy] = [x / size, y / size].map((share) => share - Math.round(share));
        return Math.hypot(dx, dy) < 0.2 ? 1 : 0;
      });
    const at = (size: number) => runToEnd(insideOf(disc(size), { width: size, height: size }, TORUS));
    const small = at(128);
    expect(small[0]).to.be.closeTo(1, 0.05);
    expect(small[64 * 128 + 64]).to.equal(0);
    const rolled = runToEnd(
      insideOf(rollPlane(disc(128), 128, 128, 40, 17), { width: 128, height: 128 }, TORUS),
    );
    expect(farthest(rollPlane(small, 128, 128, 40, 17), rolled)).to.be.below(1e-6);
    const large = at(1024);
    for (const share of [0, 0.05, 0.1, 0.15]) {
      expect(large[Math.round(share * 1024)]).to.be.closeTo(small[Math.round(share * 128)], 0.06);
    }
  });
});
