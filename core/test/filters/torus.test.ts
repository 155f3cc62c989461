import { readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import {
  atrousBands,
  COAT_OUTPUTS,
  COAT_PARTS,
  COAT_SETTINGS,
  type CoatOutput,
  type CoatPart,
  defaultsOf,
  type Edges,
  type Frame,
  GRADIENT_KERNELS,
  gaussian,
  KERNELS,
  MAP_NAMES,
  mapRaster,
  newItem,
  normalMap,
  Raster,
  resizeLanczos,
  roll,
  rollPlane,
  runToEnd,
  STATION_NAMES,
  TORUS,
  visibility,
} from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { blurPlanes } from '../../src/filters/blur-planes.ts';
import { nearestMarked } from '../../src/filters/distance.ts';
import { gradient } from '../../src/raster/gradient.ts';
import { bandSum } from '../../src/stations/relief/band-sum.ts';
import { detailBands, weightedSum } from '../../src/stations/relief/bands.ts';
import { cavityMap, localRelief } from '../../src/stations/relief/cavity.ts';
import { polarityEvidence } from '../../src/stations/relief/evidence.ts';
import { shapedHeight } from '../../src/stations/relief/height.ts';
import { heightOfNormals } from '../../src/stations/relief/integrate.ts';
import { fillJoints } from '../../src/stations/relief/joints/fill.ts';
import { findNets } from '../../src/stations/relief/joints/net.ts';
import { normalsByTeam } from '../../src/stations/relief/normals-band.ts';
import { withoutPaint } from '../../src/stations/relief/paint.ts';
import { slantHeight } from '../../src/stations/relief/slant.ts';
import { PLAIN_CONTEXT } from '../../src/team/context.ts';
import { farthest, noisePlane, tilingPicture } from '../fields.ts';
import { withBothKernels } from '../kernels/both.ts';
import { findJoints } from '../stations/relief/find-joints.ts';
import { frameOf, maskOf, runAfterJoin } from '../stations/run.ts';

const SIZE = 64;
const SIDES = { width: SIZE, height: SIZE };
const wait = async () => {};

type Operation = (plane: Float32Array, edges: Edges) => Float32Array[] | Promise<Float32Array[]>;

/** Every filter after Join, by the file it is in. */
const OPERATIONS: Record<string, Operation> = {
  'filters/gaussian.ts': (p, e) => [1.7, 2.4, 5.3, 9].map((sigma) => gaussian(p, SIZE, SIZE, sigma, e)),
  'filters/blur-planes.ts': (p, e) => {
    const blurs = [1.7, 5.3].map((sigma) => ({ plane: p, sigma }));
    return blurPlanes(blurs, { ...SIDES, edges: e }, PLAIN_CONTEXT);
  },
  'kernels/structure-tensor/reference.ts': (p, e) =>
    KERNELS.structureTensor([p], [1], { ...SIDES, edges: e }, { from: 0, to: SIZE }),
  'kernels/atrous/reference.ts': (p, e) => [KERNELS.atrousSmooth(p, SIZE, SIZE, 1, e)],
  'stations/relief/paint.ts': (p, e) => {
    const tinted = new Raster(SIZE, SIZE, [p, p.map((value) => 0.5 * value), p.map((value) => 1 - value)]);
    return [runToEnd(withoutPaint(p.slice(), tinted, 0.8, e))];
  },
  'filters/distance.ts': (p, e) => {
    const mask = Uint8Array.from(p, (value) => (value > 0.8 ? 1 : 0));
    mask[0] ||= p.every((value) => value <= 0.8) ? 1 : 0;
    return [runToEnd(nearestMarked(mask, SIDES, e)).distance];
  },
  'stations/relief/joints/field.ts': (p, e) => {
    const { away, radius, closed } = runToEnd(findJoints(p, 'dark', [], SIDES, e));
    return [away, radius, closed];
  },
  'stations/relief/joints/fill.ts': async (p, edges) => {
    const joint = p.map((value) => (value > 0.9 ? 1 : 0));
    const values = p.slice();
    await fillJoints(values, joint, { ...SIDES, edges } as Frame, PLAIN_CONTEXT);
    return [values];
  },
  'filters/atrous.ts': (p, e) => atrousBands(p, SIZE, SIZE, 4, e),
  'raster/gradient.ts': (p, e) =>
    GRADIENT_KERNELS.flatMap((kernel) => Object.values(gradient(p, SIZE, SIZE, kernel, e)) as Float32Array[]),
  'stations/relief/bands.ts': async (p, e) => [
    runToEnd(weightedSum(await detailBands(p.slice(), SIDES, e, wait), [0.3, 0.6, 1, 1.4, 1.6, 1.2])),
  ],
  'stations/relief/band-sum.ts': async (p, e) => {
    const shares = [0.3, 0.6, 1, 1.4, 1.6, 1.2].map((weight) => ({
      weight,
      clean: (band: Float32Array) => band,
    }));
    return [await bandSum(p.slice(), SIDES, e, wait, shares)];
  },
  'stations/relief/cavity.ts': async (p, edges) => [
    runToEnd(localRelief(p, SIDES, 3, edges)),
    await cavityMap(p, { ...SIDES, edges }, 3, 0.2, { hollows: 1, edges: 0.7 }, PLAIN_CONTEXT),
  ],
  'stations/relief/evidence.ts': (p, e) => {
    const { joints, together } = runToEnd(polarityEvidence(p, null, 0, SIDES, e));
    return [p.map(() => joints), p.map(() => together)];
  },
  'stations/relief/joints/net.ts': (p, e) => {
    const { dark, light } = runToEnd(findNets(p, SIDES, e));
    return [p.map(() => dark.score), p.map(() => light.score)];
  },
  'stations/relief/height.ts': async (p, e) => {
    const bands = () => detailBands(p.slice(), SIDES, e, wait);
    const raw = {
      tone: async () => p,
      bands,
      bandSum: null,
      slant: async () => p,
      normals: null,
      given: null,
    };
    const shape = {
      parts: [
        { from: 'tone' as const, share: 0.6 },
        { from: 'light' as const, share: 0.4 },
      ],
      weights: [0.3, 0.6, 1, 1.4, 1.6, 1.2],
      isDarkHigh: true,
      flatten: 0.5,
      softSigma: 1.3,
      noiseFloor: 0.8,
    };
    // Settled once for a tile, as every size takes it.
    const spreads = { tone: 1, light: 1, normals: 0, given: 0, fine: [0.05, 0.05] as [number, number] };
    return [await shapedHeight(raw, shape, spreads, SIDES, e, wait)];
  },
  'stations/relief/slant.ts': (p) => [runToEnd(slantHeight(p, SIDES, 315))],
  'stations/relief/integrate.ts': (p) => [
    runToEnd(heightOfNormals(normalMap(p, SIDES, 0.02, 1, 'sharp', 'up', TORUS))),
  ],
  'kernels/normals/reference.ts': (p, e) =>
    runToEnd(KERNELS.makingNormals(p, SIDES, 0.02, 1, 'sharp', 'up', e)).planes,
  'stations/relief/normals-band.ts': async (p, edges) => {
    const how = { depthShare: 0.02, strength: 1, kernel: 'sharp', normalY: 'up' } as const;
    const normals = (base: Raster | null) =>
      normalsByTeam(p, base, { ...SIDES, ...how, edges }, PLAIN_CONTEXT);
    return (await normals(await normals(null))).planes;
  },
  'stations/relief/normal-map.ts': (p, e) => normalMap(p, SIDES, 0.02, 1, 'sharp', 'up', e).planes,
  'stations/relief/occlusion.ts': async (p, e) => [
    await visibility(
      p.map((h) => 4 * h),
      SIZE,
      9,
      e,
      wait,
    ),
  ],
};

/** Solved on the torus whatever the edges, or one figure for the whole tile: nothing is near or far from an edge. */
const OF_THE_WHOLE = new Set([
  'stations/relief/evidence.ts',
  'filters/distance.ts',
  'stations/relief/paint.ts',
  'stations/relief/joints/field.ts',
  'stations/relief/joints/fill.ts',
  'stations/relief/joints/net.ts',
  'stations/relief/slant.ts',
  'stations/relief/integrate.ts',
]);

/** Folders without filters of a plane after Join: what is before the tile, of one value or pixel, or no computation. */
const NO_FILTER_FOLDERS = [
  'algebra',
  'chart',
  'checks',
  'colour',
  'engine',
  'far',
  'fft',
  'hashing',
  'kernels',
  'lit',
  'maps',
  'masks',
  'memory',
  // Drawn by hand, not made from a field: tested by itself.
  'paint',
  // Made from nothing but counts and a seed: tested by themselves.
  'lattice',
  'noise',
  'pattern',
  'outline',
  'stamps',
  'pixels',
  'planes',
  'raster',
  'recipe',
  'sampling',
  'settings',
  'setup',
  // Whole stacks are rolled below, and by themselves.
  'stations/coats',
  'stations/crate',
  'stations/even',
  'stations/join',
  'stations/proof',
  'stations/source',
  'stations/square',
  // Its steps are rolled by themselves, together with the origin of its strokes.
  'stations/style',
  'statistics',
  'strokes',
  'surface',
  'team',
  'tile',
  'work',
];

/** Files of the other folders that are no filters: settings, declarations, single lines, one pixel at a time. */
const NO_FILTERS = [
  // Of each pixel by itself: tested by itself.
  'filters/lightness.ts',
  'index.ts',
  'problem.ts',
  'verdict.ts',
  ...['index', 'inquiry', 'station', 'view'].map((file) => `stations/${file}.ts`),
  ...['decision', 'fit', 'marks', 'output', 'patches', 'readings', 'recolour', 'settings', 'station'].map(
    (file) => `stations/gauge/${file}.ts`,
  ),
  ...['tone', 'tone-band', 'verdict'].map((file) => `stations/gauge/${file}.ts`),
  ...['decision', 'detail-normal', 'grey', 'normals', 'occlusion-map', 'output', 'scale', 'settings'].map(
    (file) => `stations/relief/${file}.ts`,
  ),
  ...['in-mm', 'inquiries', 'raw-height', 'station', 'verdict', 'views'].map(
    (file) => `stations/relief/${file}.ts`,
  ),
  // Tested with the zones they read.
  ...['readings', 'settings'].map((file) => `stations/relief/zones/${file}.ts`),
  // Parts of what finds joints, which is put to the test as a whole; and what works on each pixel by itself.
  ...['border', 'carve', 'close', 'faces', 'first', 'repair', 'settings', 'shaped'].map(
    (file) => `stations/relief/joints/${file}.ts`,
  ),
  // Noise is made from nothing but a seed: tested by itself.
  ...[
    'curve',
    'input',
    'metal',
    'noise',
    'output',
    'roughness',
    'settings',
    'station',
    'verdict',
    'zones',
  ].map((file) => `stations/finish/${file}.ts`),
];

const SOURCES = fileURLToPath(new URL('../../src', import.meta.url));

const files = readdirSync(SOURCES, { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.ts') && !file.endsWith('.d.ts'))
  .filter((file) => !NO_FILTER_FOLDERS.some((folder) => file.startsWith(`${folder}/`)));

const shift = fc.integer({ min: -SIZE, max: SIZE });

withBothKernels('torus', () => {
  it('knows every filter there is: a new file must be put to the test here', () => {
    const inFolders = Object.keys(OPERATIONS).filter(
      (file) => !NO_FILTER_FOLDERS.some((folder) => file.startsWith(`${folder}/`)),
    );
    const known = [...inFolders, ...NO_FILTERS];
    expect(files.sort()).to.deep.equal(known.sort());
  });

  for (const [name, run] of Object.entries(OPERATIONS)) {
    it(`${name}: rolled first or rolled after is the same`, async () => {
      const plane = noisePlane(SIZE * SIZE, 8);
      const plain = await run(plane, TORUS);
      await fc.assert(
        fc.asyncProperty(shift, shift, async (dx, dy) => {
          const moved = await run(rollPlane(plane, SIZE, SIZE, dx, dy), TORUS);
          plain.forEach((out, k) => {
            expect(farthest(rollPlane(out, SIZE, SIZE, dx, dy), moved[k])).to.be.below(2e-4);
          });
        }),
        { numRuns: 8 },
      );
    });

    if (OF_THE_WHOLE.has(name)) continue;
    it(`${name}: on an unjoined axis it mirrors, so a mirrored picture gives a mirrored result`, async () => {
      // Wrapped filters see past the far edge: a spot there must not reach this side when mirrored.
      const spot = new Float32Array(SIZE * SIZE).fill(0.5);
      for (let y = 0; y < SIZE; y++) spot[y * SIZE + SIZE - 1] = 1;
      const plain = await run(new Float32Array(SIZE * SIZE).fill(0.5), { x: 'mirror', y: 'wrap' });
      const out = await run(spot, { x: 'mirror', y: 'wrap' });
      const wrapped = await run(spot, TORUS);
      const near = (planes: Float32Array[]) =>
        Math.max(...planes.map((p, k) => farthest([p[0], p[SIZE * 20]], [plain[k][0], plain[k][SIZE * 20]])));
      expect(near(out)).to.be.below(5e-3);
      expect(near(wrapped)).to.be.above(5e-3);
    });
  }

  it('all maps of all stations after Join together are rolled with the tile', async () => {
    const picture = tilingPicture(SIZE);
    const zones = [
      maskOf('dark', [{ by: 'range', how: 'and', map: 'luminance', from: 0, to: 0.35, softness: 0.3 }], 0.6),
      maskOf('near', [{ by: 'colour', how: 'and', colour: '#aca5a0', reach: 0.03, softness: 0.5 }]),
    ];
    const frame = { ...frameOf(SIZE, 0.5), masks: zones };
    const own = { ownLine: null, exposure: 0.3, contrast: 1.1 };
    const changes = {
      gauge: {
        line: 'sand-dry',
        contrast: 1.3,
        colour: 1.2,
        hueDegrees: 20,
        white: '#8a8078',
        zoneTones: [{ zone: 'near', line: 'soil-dark', ...own }],
      },
      relief: {
        occlusionMm: 60,
        heightFrom: 'both',
        secondFrom: 'light',
        flatten: 0.3,
        softMm: 8,
        noiseFloor: 0.5,
        fine1: 0.5,
        normalSoftMm: 10,
        occlusionBias: 3,
        cavityEdges: 0.5,
      },
      finish: {
        occlusion: 0.4,
        height: -0.3,
        slope: 0.6,
        f0From: 'tone',
        points: [
          [0, 0.1],
          [0.4, 0.7],
          [1, 1],
        ],
        zoneFinish: [
          { zone: 'near', line: 'copper', ownLine: null, band: [0.1, 0.3], f0: null, metallic: 'line' },
        ],
      },
    };
    const coat = (parts: Partial<CoatPart>[], outputs: Partial<CoatOutput>[]) => ({
      ...defaultsOf(COAT_SETTINGS),
      id: `coat-${outputs.length}`,
      parts: parts.map((part) => ({ ...newItem(COAT_PARTS, part.by), ...part })),
      outputs: outputs.map((one) => ({ ...newItem(COAT_OUTPUTS, one.by), ...one })),
    });
    const stack = [
      coat(
        [
          { by: 'range', map: 'wear', widthMm: 20, blurMm: 5 },
          { by: 'range', map: 'facing', degrees: 40, how: 'or', low: 0.4, high: 0.7 },
          { by: 'zone', zone: 'dark', how: 'without' },
        ],
        [
          { by: 'constant', channel: 'height', heightMm: 2 },
          { by: 'ramp', channel: 'colour', driver: 'occlusion', blend: 'soft-light' },
          { by: 'ramp', channel: 'roughness', driver: 'mask' },
        ],
      ),
      coat(
        [{ by: 'range', map: 'cavity', low: 0.6, high: 0.4 }],
        [
          { by: 'line', channel: 'colour', line: 'moss' },
          { by: 'constant', channel: 'metallic', amount: 1, strength: 0.4 },
        ],
      ),
    ];
    const coated = { ...changes, coats: { stack } };
    const plain = await runAfterJoin(picture, coated, frame);
    for (const [dx, dy] of [
      [17, -9],
      [32, 32],
    ]) {
      const moved = await runAfterJoin(roll(picture, dx, dy), coated, frame, plain.decisions);
      for (const map of MAP_NAMES.filter((name) => name !== 'opacity' && name !== 'emission')) {
        const expected = roll(mapRaster(plain.outputs.coats, map)!, dx, dy);
        mapRaster(moved.outputs.coats, map)!.planes.forEach((plane, c) => {
          expect(farthest(plane, expected.planes[c]), map).to.be.below(1e-3);
        });
      }
    }
    expect(STATION_NAMES.slice(STATION_NAMES.indexOf('join') + 1)).to.deep.equal([
      'style',
      'gauge',
      'relief',
      'finish',
      'coats',
      'proof',
      'crate',
    ]);
  });

  it('a tile enlarged on the torus still tiles', () => {
    const picture = tilingPicture(SIZE);
    const large = resizeLanczos(picture, 2 * SIZE, 2 * SIZE, TORUS);
    const moved = resizeLanczos(roll(picture, 10, 3), 2 * SIZE, 2 * SIZE, TORUS);
    expect(farthest(roll(large, 20, 6).planes[1], moved.planes[1])).to.be.below(1e-5);
    expect(large).to.be.instanceOf(Raster);
  });
});
