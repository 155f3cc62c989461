import { readFile } from 'node:fs/promises';
import { decodePicture, sourceHost, threads } from '@zesty-tile/codecs';
import {
  atrousBands,
  Engine,
  type EvaluationRequest,
  gaussian,
  linearise,
  MIRROR,
  PLANES,
  Raster,
  type Recipe,
  realSpectra,
  resizeLanczos,
  runToEnd,
  seamFigures,
  TORUS,
  visibility,
} from '@zesty-tile/core';
import { demoPicture, demoRecipe, makeMissingPictures } from '@zesty-tile/demo';
import FFT from 'fft.js';
import sharp from 'sharp';
import type { Strip } from '../core/src/kernels/cut-costs/strip.ts';
import { blendBands } from '../core/src/stations/join/blend.ts';
import { cutMask, minimumCut } from '../core/src/stations/join/cut.ts';
import { bakedSet } from './baked-set.ts';
import { coatTimings } from './coat-timings.ts';
import { dialTimings } from './dial-timings.ts';
import { kernelTimings } from './kernel-timings.ts';
import { best, plane, SCALE } from './measured.ts';
import { shotsTimings } from './shots-timings.ts';
import { stopTimes } from './stop-times.ts';
import { styleTimings } from './style-timings.ts';

// Times on shared machines swing by half; a ratio to a general library in the same run swings far less.

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

const rows: { work: string; ours: number; other: number; against: string; wanted?: number }[] = [];
async function row(work: string, ours: () => unknown, against: string, other: number, wanted?: number) {
  rows.push({ work, ours: await best(ours), other, against, wanted });
}

/** A blur as stations do it: into a plane that was there before. */
const blurs = (sigma: number) => PLANES.give(gaussian(p2, 2048, 2048, sigma, TORUS));

const team = threads();
await makeMissingPictures(['pamments']);
const p1 = plane(1024);
const p2 = plane(2048);
await checkSharp(p2, 2048);

const u1 = await best(() => blurred(p1, 1024, 16));
const u2 = await best(() => blurred(p2, 2048, 16));
await row('Gaussian σ 16, 2048²', () => blurs(16), 'its blur σ 16', u2, 0.1);
const s4 = await best(() => blurred(p2, 2048, 4));
const s2 = await best(() => blurred(p2, 2048, 2));
await row('Gaussian σ 2, 2048²', () => blurs(2), 'its blur σ 2', s2, 0.35);
await row('Gaussian σ 4, 2048²', () => blurs(4), 'its blur σ 4', s4);
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
      const mask = cutMask(strip, runToEnd(minimumCut(strip, cyclic)));
      await blendBands(strip, mask, cyclic, async () => {}, undefined, team);
    }
  },
  'blur σ 16, 2048²',
  u2,
  1.5,
);
/** The 2-D transform of one real plane by the library alone: rows as real, columns as complex lines. */
function libraryFft(plane: Float32Array, n: number): void {
  const fft = new FFT(n);
  const line = fft.createComplexArray();
  const out = Array.from({ length: n }, (_, y) => {
    const made = fft.createComplexArray();
    fft.realTransform(made, Array.from(plane.subarray(y * n, (y + 1) * n)));
    fft.completeSpectrum(made);
    return made;
  });
  const column = fft.createComplexArray();
  for (let x = 0; x < n; x++) {
    for (let y = 0; y < n; y++) {
      line[2 * y] = out[y][2 * x];
      line[2 * y + 1] = out[y][2 * x + 1];
    }
    fft.transform(column, line);
    for (let y = 0; y < n; y++) {
      out[y][2 * x] = column[2 * y];
      out[y][2 * x + 1] = column[2 * y + 1];
    }
  }
}
const library = await best(() => libraryFft(p2, 2048));
await row(
  'FFT of two real planes, 2048²',
  () => runToEnd(realSpectra(p2, p2, 2048, 2048)),
  'fft.js, one plane',
  library,
  0.5,
);
const heights = plane(1024).map((v) => (60 * v) / SCALE);
await row(
  'Occlusion, 16 directions, 1024², all cores',
  () => visibility(heights, 1024, 48, TORUS, async () => {}, 0, team),
  'blur σ 16, 1024²',
  u1,
  // 3 for 8 directions.
  6,
);

const bytes = await readFile(demoPicture('pamments'));
const source = { sha256: 'pamments', width: 1600, height: 1200 };
const host = { ...sourceHost(async () => bytes), team };
const recipe = demoRecipe('pamments');
type More = Partial<EvaluationRequest>;
const run = (engine: Engine, size: number, given: Recipe, more: More = {}) =>
  engine.evaluate({ recipe: given, source, size, ...more });
const decided = (await run(new Engine(host, 0), 512, recipe)).recipe;
const B1 = 'blur σ 16, 1024²';
for (const [size, wanted] of [
  [512, 1.5],
  [1024, 6],
] as const) {
  await row(
    `All maps at ${size}², vectors known`,
    () => run(new Engine(host, 0), size, decided, { withoutVerdicts: true }),
    B1,
    u1,
    wanted,
  );
  await row(`the same, measured as well`, () => run(new Engine(host, 0), size, decided), B1, u1);
}
const joined = new Engine(host, 2 ** 31);
const derived = { until: 'finish', without: ['relief.occlusion'], withoutVerdicts: true } as const;
await run(joined, 1024, decided, { until: 'join', withoutVerdicts: true });
let turn = 0;
await row(
  'Derived maps without occlusion, 1024²',
  () => {
    turn += 0.01;
    const { gauge, relief, finish } = decided.stations;
    const stations = {
      ...decided.stations,
      gauge: { ...gauge, exposure: gauge.exposure + turn },
      relief: { ...relief, depthMm: relief.depthMm + turn },
      finish: { ...finish, tone: finish.tone + turn },
    };
    return run(joined, 1024, { ...decided, stations }, derived);
  },
  B1,
  u1,
  0.5,
);
/** µs for a pixel of all maps, vectors known, by size; and with all that is measured. */
const perPixel: { size: number; us: number; measured: number }[] = [];
for (const size of [512, 1024, 2048, 4096]) {
  const once = (more: More) => run(new Engine(host, 0), size, decided, more);
  if (size < 2048) await once({});
  const us = (1000 * (await best(() => once({ withoutVerdicts: true })))) / size ** 2;
  const start = performance.now();
  await once({});
  perPixel.push({ size, us, measured: (1000 * (performance.now() - start)) / size ** 2 });
}
/** How long it takes to stop, ms, by size: in the middle, of nineteen in twenty, at most. */
const stops: string[] = [];
for (const size of [512, 1024, 2048]) {
  const times = await stopTimes(host, { recipe, source, size });
  const at = (share: number) => times[Math.floor(share * (times.length - 1))].toFixed(0).padStart(7);
  stops.push(`${`${size}²`.padEnd(27)}   ${at(0.5)}   ${at(0.95)}   ${at(1)}`);
}
// Minutes may lie between this and the first measure, in which the machine has become another.
const blur2 = () => best(() => blurred(p2, 2048, 16));
const before = await blur2();
const set = await bakedSet(4096);
const about = (before + (await blur2())) / 2;
rows.push({
  work: 'Complete set of 4096², in a process',
  ours: set.ms,
  other: about,
  against: 'blur σ 16, 2048², just before and after',
  wanted: 30,
});
await kernelTimings(strip);

const ms = (v: number) => v.toFixed(v < 10 ? 1 : 0).padStart(7);
const said = (found: number, wanted?: number) =>
  wanted === undefined ? '' : `${String(wanted).padStart(6)}  ${found <= wanted ? 'met' : 'MISSED'}`;
console.log(`\n${'work'.padEnd(44)}   ours ms  other ms   ratio  wanted         the other’s work`);
for (const { work, ours, other, against, wanted } of rows) {
  console.log(
    `${work.padEnd(44)}   ${ms(ours)}   ${ms(other)}   ${(ours / other).toFixed(2).padStart(5)}  ${said(ours / other, wanted).padEnd(14)} ${against}`,
  );
}
const usual = perPixel.reduce((sum, { us }) => sum + us, 0) / perPixel.length;
console.log('\nall maps, vectors known      µs a pixel   of the mean   measured as well');
for (const { size, us, measured } of perPixel) {
  console.log(
    `${`${size}²`.padEnd(27)}   ${us.toFixed(2).padStart(9)}   ${((100 * us) / usual).toFixed(0).padStart(9)} %   ${measured.toFixed(2).padStart(16)}`,
  );
}
console.log('\nfrom being told to stop until it has, ms    median   19 of 20    most (30 wanted)');
for (const line of stops) console.log(line);
console.log(`\nPeak memory of the set of 4096²: ${(set.bytes / 2 ** 30).toFixed(2)} GB (2 wanted)`);

console.log(`\n${'coats, medians'.padEnd(52)}        ms    wanted`);
for (const { work, ms: taken, wanted } of await coatTimings(host, decided, source)) {
  console.log(`${work.padEnd(52)}   ${ms(taken)}   ${said(taken, wanted)}`);
}

console.log(`\n${'Style, medians'.padEnd(52)}        ms    wanted`);
for (const { work, ms: taken, wanted } of await styleTimings(host, decided, source)) {
  console.log(`${work.padEnd(52)}   ${ms(taken)}   ${said(taken, wanted)}`);
}

console.log(`\n${'several shots'.padEnd(52)}        ms    wanted`);
for (const { work, ms: taken, wanted } of await shotsTimings(team)) {
  console.log(`${work.padEnd(52)}   ${ms(taken)}   ${wanted === null ? '' : said(taken, wanted)}`);
}

console.log(`\n${'in the browser, medians'.padEnd(52)}        ms    wanted`);
for (const { work, ms: taken, wanted } of await dialTimings()) {
  console.log(`${work.padEnd(52)}   ${ms(taken)}   ${said(taken, wanted)}`);
}
await team.end();
