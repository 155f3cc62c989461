import { readFile } from 'node:fs/promises';
import { decodePicture, sourceHost } from '@zesty-tile/codecs';
import {
  atrousBands,
  Engine,
  gaussian,
  linearise,
  MIRROR,
  Raster,
  type Recipe,
  resizeLanczos,
  seamFigures,
  sidesOf,
  TORUS,
  visibility,
} from '@zesty-tile/core';
import { demoPicture, demoRecipe, makeMissingPictures } from '@zesty-tile/demo';
import sharp from 'sharp';
import { KERNELS, type Kernels, REFERENCE } from '../core/src/kernels/kernels.ts';
import { edgeIndex } from '../core/src/raster/edges.ts';
import { phaseTable } from '../core/src/raster/phases.ts';
import { blendBands } from '../core/src/stations/join/blend.ts';
import { cutMask, minimumCut } from '../core/src/stations/join/cut.ts';
import type { Strip } from '../core/src/stations/join/strip.ts';
import { occlusionMap } from '../core/src/stations/relief/occlusion-map.ts';
import { dialTimings } from './dial-timings.ts';

// Times on shared machines swing by half; a ratio to a general library in the same run swings far less.

const ROUNDS = 3;

async function best(work: () => unknown): Promise<number> {
  let least = Number.POSITIVE_INFINITY;
  for (let round = 0; round < ROUNDS; round++) {
    const start = performance.now();
    await work();
    least = Math.min(least, performance.now() - start);
  }
  return least;
}

/** sharp hands its floats out by way of 16-bit codes, so the planes fill their range. */
const SCALE = 60000;

const plane = (size: number) =>
  Float32Array.from(
    { length: size * size },
    (_, i) => SCALE * (0.5 + 0.4 * Math.sin(i * 12.9898) * Math.cos(i * 0.031)),
  );

/** sharp over one float plane, its own kernels, its own threads. */
const withSharp = (data: Float32Array, size: number) =>
  sharp(data, { raw: { width: size, height: size, channels: 1 } });
const blurred = (data: Float32Array, size: number, sigma: number) =>
  withSharp(data, size).blur(sigma).toColourspace('grey16').raw({ depth: 'float' }).toBuffer();

async function checkSharp(data: Float32Array, size: number) {
  const out = await blurred(data, size, 16);
  const values = new Float32Array(out.buffer, out.byteOffset, size * size);
  const ours = gaussian(data, size, size, 16, TORUS);
  const middle = (size / 2) * size + size / 2;
  if (!(Math.abs(values[middle] - ours[middle]) < SCALE * 1e-3))
    throw new Error('sharp did not do the same blur; the ratios would mean nothing.');
}

const rows: { work: string; ours: number; sharps: number; against: string }[] = [];
async function row(work: string, ours: () => unknown, against: string, sharps: number) {
  rows.push({ work, ours: await best(ours), sharps, against });
}

await makeMissingPictures(['pamments']);
const p1 = plane(1024);
const p2 = plane(2048);
await checkSharp(p2, 2048);

const u1 = await best(() => blurred(p1, 1024, 16));
const u2 = await best(() => blurred(p2, 2048, 16));
await row('Gaussian σ 16, 2048²', () => gaussian(p2, 2048, 2048, 16, TORUS), 'its blur σ 16', u2);
const s4 = await best(() => blurred(p2, 2048, 4));
const s2 = await best(() => blurred(p2, 2048, 2));
await row('Gaussian σ 2, 2048²', () => gaussian(p2, 2048, 2048, 2, TORUS), 'its blur σ 2', s2);
await row('Gaussian σ 4, 2048²', () => gaussian(p2, 2048, 2048, 4, TORUS), 'its blur σ 4', s4);
const r2 = await best(() =>
  withSharp(p2, 2048)
    .resize(1024, 1024, { kernel: 'lanczos3' })
    .toColourspace('grey16')
    .raw({ depth: 'float' })
    .toBuffer(),
);
await row(
  'Lanczos 2048² to 1024²',
  () => resizeLanczos(new Raster(2048, 2048, [p2]), 1024, 1024, TORUS),
  'its Lanczos',
  r2,
);
await row('Five à trous bands, 1024²', () => atrousBands(p1, 1024, 1024, 5, TORUS), 'blur σ 16, 1024²', u1);
await row(
  'Seam and blotch figures, 1024²',
  () => seamFigures(new Raster(1024, 1024, [p1, p1, p1])),
  'blur σ 16, 1024²',
  u1,
);
const photo = await decodePicture(await readFile(demoPicture('pamments')));
const { picture } = linearise({ pixels: photo, given: {} }, { reads: 'file', givenGreen: 'up' });
const wide = resizeLanczos(picture, 2730, 2048, MIRROR);
/** The overlap of a tile of 2048 px, a sixth of it wide. */
const overlap = 342;
const strip: Strip = {
  width: overlap,
  length: 2048,
  a: wide.cut(100, 0, overlap, 2048).planes,
  b: wide.cut(2148, 0, overlap, 2048).planes,
};
await row(
  'Cut and every band, both axes, 2048² RGB',
  async () => {
    for (const cyclic of [false, true]) {
      const mask = cutMask(strip, minimumCut(strip, cyclic));
      await blendBands(strip, mask, cyclic, async () => {});
    }
  },
  'blur σ 16, 2048²',
  u2,
);
const heights = plane(512).map((v) => (30 * v) / SCALE);
await row(
  'Occlusion, 16 directions, 512²',
  () => visibility(heights, 512, 24, TORUS, async () => {}),
  'blur σ 16, 1024²',
  u1,
);
const whole = p1.map((v) => v / SCALE);
await row(
  'Occlusion map of 1024², as it is made',
  () =>
    occlusionMap(
      whole,
      { depthMm: 20, occlusionMm: 60, occlusionStrength: 1, occlusionBias: 0 } as never,
      { size: 1024, ...sidesOf('1:1', 1024), shape: '1:1', edgeMetres: 1, edges: TORUS } as never,
      async () => {},
    ),
  'blur σ 16, 1024²',
  u1,
);

const bytes = await readFile(demoPicture('pamments'));
const source = { sha256: 'pamments', width: 1600, height: 1200 };
const host = sourceHost(async () => bytes);
const recipe = demoRecipe('pamments');
const run = (engine: Engine, size: number, given: Recipe) => engine.evaluate({ recipe: given, source, size });
const decided = (await run(new Engine(host, 0), 512, recipe)).recipe;
await row(
  'Whole run at 512², decisions known',
  () => run(new Engine(host, 0), 512, decided),
  'blur σ 16, 1024²',
  u1,
);
await row(
  'Whole run at 1024², decisions known',
  () => run(new Engine(host, 0), 1024, decided),
  'blur σ 16, 2048²',
  u2,
);
const warm = new Engine(host, 2 ** 30);
await run(warm, 512, decided);
let exposure = 0;
const dial = () => {
  exposure += 0.02;
  const stations = { ...decided.stations, gauge: { ...decided.stations.gauge, exposure } };
  return run(warm, 512, { ...decided, stations });
};
await row('Exposure dial to all maps, 512²', dial, 'blur σ 16, 1024²', u1);
/** Each kernel beside its plain reference, on a plane of 2048². */
const halved = {
  count: 13,
  first: Int32Array.from({ length: 1024 }, (_, i) => 2 * i - 6),
  weights: new Float32Array(1024 * 13).fill(1 / 13),
};
const at13 = Int32Array.from({ length: 1024 * 13 }, (_, i) =>
  edgeIndex(halved.first[Math.floor(i / 13)] + (i % 13), 2048, 'wrap'),
);
const turned = (k: Kernels) => {
  const out = Raster.filled(2048, 256, 1);
  const resample = k.rowResampler(new Raster(2048, 2048, [p2]), TORUS);
  const table = phaseTable(1);
  const [xs, ys] = [new Float64Array(2048), new Float64Array(2048)];
  for (let y = 0; y < 256; y++) {
    for (let x = 0; x < 2048; x++) {
      xs[x] = 30 + 0.97 * x - 0.05 * y;
      ys[x] = 30 + 0.05 * x + 0.97 * y;
    }
    resample(out, y, xs, ys, table);
  }
};
const kernels: [name: string, work: (k: Kernels) => unknown][] = [
  ['Gaussian σ 2, direct', (k) => k.gaussianFir(p2, 2048, 2048, 2, TORUS)],
  ['Gaussian σ 16, recursive', (k) => k.gaussianRecursive(p2, 2048, 2048, 16, TORUS)],
  ['À trous, four apart', (k) => k.atrousSmooth(p2, 2048, 2048, 4, TORUS)],
  ['Columns to half, 13 taps', (k) => k.weighColumns(p2, 2048, 2048, halved, at13)],
  ['Rows to half, 13 taps', (k) => k.weighRows(p2, 2048, halved, at13)],
  ['Resampling on the slant, 2048 × 256', turned],
];
console.log(`\n${'kernel'.padEnd(42)}  plain ms   twin ms   quicker`);
for (const [name, work] of kernels) {
  const plain = await best(() => work(REFERENCE));
  const twin = await best(() => work(KERNELS));
  console.log(
    `${name.padEnd(42)}   ${plain.toFixed(0).padStart(7)}   ${twin.toFixed(0).padStart(7)}   ${(plain / twin).toFixed(1).padStart(6)} ×`,
  );
}

const ms = (v: number) => v.toFixed(v < 10 ? 1 : 0).padStart(7);
console.log(`\n${'work'.padEnd(42)}   ours ms  sharp ms   ratio   sharp’s work`);
for (const { work, ours, sharps, against } of rows) {
  console.log(
    `${work.padEnd(42)}   ${ms(ours)}   ${ms(sharps)}   ${(ours / sharps).toFixed(2).padStart(5)}   ${against}`,
  );
}

console.log(`\n${'in the browser, medians'.padEnd(46)}        ms    wanted`);
for (const { work, ms: taken, wanted } of await dialTimings()) {
  console.log(`${work.padEnd(46)}   ${ms(taken)}   ${ms(wanted)}`);
}
