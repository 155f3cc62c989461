import { defaultsOf, type Frame, KERNELS, Raster, runToEnd, STATIONS, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { nearestMarked } from '../../../src/filters/distance.ts';
import { maskCover } from '../../../src/masks/cover.ts';
import type { MaskStroke } from '../../../src/masks/mask.ts';
import { noiseRow } from '../../../src/noise/noise.ts';
import { resizeArea } from '../../../src/sampling/resize.ts';
import { carve } from '../../../src/stations/relief/joints/carve.ts';
import type { JointField } from '../../../src/stations/relief/joints/field.ts';
import { CLEAR_NET, findNets } from '../../../src/stations/relief/joints/net.ts';
import { jointsOf } from '../../../src/stations/relief/joints/shaped.ts';
import { PLAIN_CONTEXT } from '../../../src/team/context.ts';
import { correlation, farthest, planeOf, rmsBetween } from '../../fields.ts';
import { frameOf, runStation, unpainted, verdictOf } from '../run.ts';
import { findJoints } from './find-joints.ts';
import { JOINTED, type Truth } from './truth.ts';

const SIZE = 512;
const EDGE = 1.2;
const sides = { width: SIZE, height: SIZE };

const styleOf = (grey: Float32Array, size: number) => unpainted(new Raster(size, size, [grey, grey, grey]));

const linesOf = (truth: Truth) => (truth.areJointsLight ? 'light' : 'dark');

/** The relief of a surface of known height, by tone with the sign that is right, or with joints and faces. */
async function reliefOf(truth: Truth, changes: object, frame: Frame = frameOf(SIZE, EDGE)) {
  const polarity = truth.areJointsLight ? 'dark' : 'bright';
  const { output } = await runStation(
    'relief',
    { style: styleOf(truth.grey, frame.size) },
    { polarity, ...changes },
    frame,
  );
  return output as {
    height: Float32Array;
    depthMm: number;
    joints: Float32Array | null;
    faceCount: number | null;
  };
}

const carved = (truth: Truth) => ({
  joints: linesOf(truth),
  jointDepthMm: truth.jointMm,
  bevelMm: 5,
  faceDomeMm: truth.isFlat ? 0 : truth.jointMm / 2,
});

/** Deviation of the height of what is level in truth, as a share of the joints' depth. */
function unevenness({ height, depthMm }: { height: Float32Array; depthMm: number }, truth: Truth): number {
  let [n, sum, squares] = [0, 0, 0];
  for (let i = 0; i < height.length; i++) {
    if (truth.heightMm[i] < 0.98 * truth.jointMm) continue;
    n++;
    sum += height[i];
    squares += height[i] ** 2;
  }
  return (depthMm * Math.sqrt(Math.max(0, squares / n - (sum / n) ** 2))) / truth.jointMm;
}

describe('joints and faces', () => {
  for (const [name, make] of Object.entries(JOINTED)) {
    it(`of ${name} are found, at the height they have in truth, and flat where they are flat`, async () => {
      const truth = make(SIZE);
      const nets = runToEnd(findNets(KERNELS.encodeSrgbPlane(truth.grey), sides, TORUS));
      const [own, other] = truth.areJointsLight ? [nets.light, nets.dark] : [nets.dark, nets.light];
      expect(own.score).to.be.above(CLEAR_NET);
      expect(own.score).to.be.above(other.score);
      const [tone, joints] = [await reliefOf(truth, {}), await reliefOf(truth, carved(truth))];
      expect(tone.joints).to.equal(null);
      const found = correlation(joints.height, truth.heightMm);
      expect(found).to.be.above(0.9);
      expect(found).to.be.above(correlation(tone.height, truth.heightMm));
      if (truth.isFlat) expect(unevenness(joints, truth)).to.be.below(0.05);
      expect(joints.faceCount).to.be.within(0.7 * truth.faces, truth.faces);
    });
  }

  it('have the same height at every size', async () => {
    const make = JOINTED['brickwork, light joints'];
    const small = await reliefOf(make(SIZE), carved(make(SIZE)));
    const truth = make(2 * SIZE);
    const large = await reliefOf(truth, carved(truth), frameOf(2 * SIZE, EDGE));
    const down = resizeArea(new Raster(2 * SIZE, 2 * SIZE, [large.height]), SIZE, SIZE).planes[0];
    const scale = large.depthMm / small.depthMm;
    expect(scale).to.be.within(0.9, 1.1);
    expect(correlation(down, small.height)).to.be.above(0.97);
  });

  it('are not offered on surfaces without joints', () => {
    const noises = [
      'fractal',
      'ridged',
      'billowed',
      'cells',
      'second-cells',
      'cell-values',
      'directional',
    ] as const;
    const shape = { octaves: 4, gain: 0.5, stretch: 1, degrees: 0, warp: 0 };
    const tile = { ...sides, edgeMetres: EDGE };
    const us = Float64Array.from({ length: SIZE }, (_, x) => (x + 0.5) / SIZE);
    let count = 0;
    for (const kind of noises) {
      for (const [k, sizeMm] of [400, 150, 60].entries()) {
        const plane = new Float32Array(SIZE * SIZE);
        const row = noiseRow({ ...shape, kind, sizeMm, seed: 11 * k + 1 }, tile);
        for (let y = 0; y < SIZE; y++) row(us, (y + 0.5) / SIZE, plane, y * SIZE);
        const { dark, light } = runToEnd(
          findNets(
            plane.map((value) => 0.3 + 0.4 * value),
            sides,
            TORUS,
          ),
        );
        expect(Math.max(dark.score, light.score), `${kind} of ${sizeMm} mm`).to.be.below(CLEAR_NET);
        count++;
      }
    }
    expect(count).to.be.at.least(20);
  }).timeout(120_000);

  it('are rolled with the tile', () => {
    const { grey } = JOINTED.cobbles(256);
    const at = { width: 256, height: 256 };
    const of = (plane: Float32Array) => runToEnd(findJoints(plane, 'dark', [], at, TORUS));
    const [plain, rolled] = [
      of(grey),
      of(planeOf(256, 256, (x, y) => grey[((y + 90) % 256) * 256 + ((x + 37) % 256)])),
    ];
    const back = planeOf(256, 256, (x, y) => rolled.away[((y + 166) % 256) * 256 + ((x + 219) % 256)]);
    expect(rmsBetween(plain.away, back)).to.be.below(1e-3);
    expect(rolled.count).to.equal(plain.count);
  });
});

/** A field that rises from a joint in the middle column on to both sides. */
function ramp(width: number): JointField {
  const one = (value: number) => new Float32Array(101).fill(value);
  const away = Float32Array.from({ length: 101 }, (_, x) => Math.abs(x - 50) / 1000 - width / 2);
  return { away, radius: one(0.04), level: one(1), tilt: one(0), closed: one(1), width, count: 1 };
}

describe('carved joints', () => {
  const how = { depthMm: 4, widthMm: 0, bevelMm: 3, domeMm: 0, tiltMm: 0, levelMm: 0 };
  const heights = (changes: object, field = ramp(0.02)) => {
    const out = new Float32Array(101);
    carve(field, { ...how, profile: 'recessed', ...changes } as never, 1000, 1, out, 0, 101);
    return out;
  };

  it('lie below faces, level with them, or above', () => {
    const [recessed, flush, raised] = ['recessed', 'flush', 'raised'].map((profile) => heights({ profile }));
    expect(recessed[50]).to.be.closeTo(-4, 1e-4);
    expect(flush[50]).to.be.closeTo(0, 1e-4);
    expect(Math.min(...flush)).to.be.closeTo(-4, 1e-4);
    expect(raised[50]).to.be.closeTo(4, 1e-4);
    for (const plane of [recessed, flush, raised]) expect(plane[5]).to.be.closeTo(0, 1e-4);
  });

  it('rise over the bevel, and are as wide as they are asked for', () => {
    const full = (plane: Float32Array) => plane.findIndex((value) => value < -1e-3);
    expect(full(heights({ bevelMm: 3 }))).to.be.within(36, 38);
    expect(full(heights({ bevelMm: 12 }))).to.be.within(27, 29);
    expect(full(heights({ widthMm: 40 }))).to.be.within(26, 28);
  });

  it('have faces that are domed and stand at a level of their own', () => {
    const plane = heights({ domeMm: 5, levelMm: 2 });
    expect(plane[0]).to.be.closeTo(7, 1e-3);
    expect(plane[30]).to.be.within(4, 7);
    expect(plane[50]).to.be.closeTo(-4, 1e-4);
  });

  it('give way where the net leaks', () => {
    const field = { ...ramp(0.02), closed: new Float32Array(101) };
    expect(farthest(heights({}, field), new Float32Array(101))).to.equal(0);
  });
});

describe('repair of the net', () => {
  const grey = JOINTED['brickwork, dark joints'](256).grey;
  const at = { width: 256, height: 256 };
  const stroke = (points: [number, number][], erase: boolean): MaskStroke => ({
    points,
    radius: 0.012,
    softness: 0,
    erase,
  });
  const of = (strokes: MaskStroke[]) => runToEnd(findJoints(grey, 'dark', strokes, at, TORUS));

  it('adds a joint that closes another face, and takes one away', () => {
    const plain = of([]);
    // Through the middle of a brick, and over the joint between two.
    const added = of([
      stroke(
        [
          [0.375, 0.19],
          [0.375, 0.31],
        ],
        false,
      ),
    ]);
    const taken = of([
      stroke(
        [
          [0.25, 0.02],
          [0.25, 0.08],
        ],
        true,
      ),
    ]);
    expect(added.count).to.equal(plain.count + 1);
    expect(taken.count).to.equal(plain.count - 1);
    const i = Math.round(0.25 * 256) * 256 + Math.round(0.375 * 256);
    expect(plain.away[i]).to.be.above(0);
    expect(added.away[i]).to.be.below(0);
  });

  it('that covers everything leaves no faces, and says so', async () => {
    const style = styleOf(grey, 256);
    const all = stroke(
      [
        [0, 0],
        [0.5, 0.5],
        [1, 1],
      ],
      false,
    );
    const changes = { joints: 'dark', jointStrokes: [{ ...all, radius: 1 }] };
    const { output, verdict } = await verdictOf('relief', { style }, changes, frameOf(256, EDGE));
    expect(output.faceCount).to.equal(0);
    expect(verdict.state).to.equal('look');
    expect(verdict.advice).to.contain('closes no face');
    expect(output.height.every(Number.isFinite)).to.equal(true);
  });
});

describe('joints as a mask', () => {
  it('select what is joint, for zones and for coats', async () => {
    const truth = JOINTED['brickwork, dark joints'](256);
    const frame = frameOf(256, EDGE);
    const style = styleOf(truth.grey, 256);
    const { output: relief } = await runStation('relief', { style }, carved(truth), frame);
    const part = { by: 'range', how: 'and', map: 'joints', from: 0.5, to: 1, softness: 0.2 } as const;
    const zone = { id: 'joints', name: 'Joints', parts: [part], wetness: 0 };
    const cover = await maskCover(zone, { style, relief }, frame, PLAIN_CONTEXT);
    const inverse = truth.face.map((face) => 1 - face);
    expect(correlation(cover, inverse)).to.be.above(0.85);
    const { output: plain } = await runStation('relief', { style }, {}, frame);
    const none = await maskCover(zone, { style, relief: plain }, frame, PLAIN_CONTEXT);
    expect(none.every((value) => value === 0)).to.equal(true);
  });
});

describe('joints that are not held', () => {
  it('above 2048 px are brought up for each use, and are the same each time', async () => {
    const truth = JOINTED['brickwork, light joints'](256);
    const { picture } = styleOf(truth.grey, 256);
    const chosen = { ...defaultsOf(STATIONS.relief.settings), joints: 'light' as const };
    const frame = frameOf(256, EDGE);
    const held = (await jointsOf(picture, chosen, frame, PLAIN_CONTEXT))!;
    const large = (await jointsOf(picture, chosen, { ...frame, size: 4096 }, PLAIN_CONTEXT))!;
    expect(await held.field()).to.equal(await held.field());
    expect(await large.field()).not.to.equal(await large.field());
    expect(await large.field()).to.deep.equal(await held.field());
    expect(large.count).to.equal(held.count);
    expect(large.count).to.be.above(5);
  });
});

describe('tone inside faces', () => {
  it('has no rim beside joints, where tone alone has one', async () => {
    const truth = JOINTED['brickwork, light joints'](256);
    const frame = frameOf(256, EDGE);
    const isJoint = Uint8Array.from(truth.face, (face) => (face < 0.5 ? 1 : 0));
    const { distance } = runToEnd(nearestMarked(isJoint, { width: 256, height: 256 }, TORUS));
    /** How far what lies beside joints stands above the middle of faces, in depths of the joints. */
    const rim = ({ height, depthMm }: { height: Float32Array; depthMm: number }) => {
      const mean = (from: number, to: number) => {
        const found = height.filter((_value, i) => distance[i] >= from && distance[i] < to);
        return found.reduce((a, b) => a + b, 0) / found.length;
      };
      return (depthMm * Math.abs(mean(5, 7) - mean(8, 99))) / truth.jointMm;
    };
    const tone = await reliefOf(truth, {}, frame);
    const joints = await reliefOf(truth, { ...carved(truth), bevelMm: 1, faceTone: 1 }, frame);
    expect(rim(joints)).to.be.below(0.02);
    expect(rim(tone)).to.be.above(2 * rim(joints));
  });

  it('is as strong as it is asked for', async () => {
    const truth = JOINTED['brickwork, light joints'](256);
    const frame = frameOf(256, EDGE);
    const none = await reliefOf(truth, { ...carved(truth), faceTone: 0 }, frame);
    const some = await reliefOf(truth, { ...carved(truth), faceTone: 0.5 }, frame);
    expect(unevenness(none, truth)).to.be.below(0.02);
    expect(unevenness(some, truth)).to.be.above(2 * unevenness(none, truth));
  });
});
