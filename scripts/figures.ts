import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { sourceHost } from '@zesty-tile/codecs';
import { cropMapper, Engine, gaussian, type Recipe, TORUS } from '@zesty-tile/core';
import { DEMO_IDS, demoPicture, demoRecipe, makeMissingPictures, makeSource } from '@zesty-tile/demo';
import sharp from 'sharp';

const ZESTY = fileURLToPath(new URL('../cli/bin/zesty.mjs', import.meta.url));
const folder = await mkdtemp(join(tmpdir(), 'zesty-figures-'));

function verdict(ok: boolean): string {
  return ok ? 'met' : 'MISSED';
}

/** Wall time and peak memory of one `zesty bake`, start of the program included. */
function bake(photo: string, size: number): Promise<{ seconds: number; gigabytes: number }> {
  return new Promise((resolve, reject) => {
    const start = performance.now();
    const child = spawn(process.execPath, [
      ZESTY,
      'bake',
      photo,
      '--out',
      folder,
      '--size',
      String(size),
      '--force',
      '--quiet',
    ]);
    let peak = 0;
    const status = `/proc/${child.pid}/status`;
    const watch = setInterval(async () => {
      if (!existsSync(status)) return;
      const text = await readFile(status, 'utf8').catch(() => '');
      peak = Math.max(peak, Number(/VmHWM:\s+(\d+)/.exec(text)?.[1] ?? 0));
    }, 100);
    child.once('error', reject);
    child.once('close', (code) => {
      clearInterval(watch);
      if (code !== 0) reject(new Error(`zesty bake ended with ${code}.`));
      else resolve({ seconds: (performance.now() - start) / 1000, gigabytes: peak / 2 ** 20 });
    });
  });
}

async function bakes() {
  const photo = join(folder, 'twelve-megapixels.jpg');
  await sharp(demoPicture('shells')).resize(4000, 3000).jpeg({ quality: 92 }).toFile(photo);
  console.log(
    '\nzesty bake of a 4000 × 3000 JPEG, default recipe, whole process (wall time; VmHWM of the process)',
  );
  for (const [size, seconds, gigabytes] of [
    [1024, 10, Number.POSITIVE_INFINITY],
    [2048, 40, Number.POSITIVE_INFINITY],
    [4096, Number.POSITIVE_INFINITY, 4],
  ]) {
    const took = await bake(photo, size);
    const aim = seconds < 1e9 ? `${seconds} s` : `${gigabytes} GB`;
    const ok = took.seconds <= seconds && took.gigabytes <= gigabytes;
    console.log(
      `  ${size}: ${took.seconds.toFixed(1)} s, ${took.gigabytes.toFixed(2)} GB   aim ${aim}: ${verdict(ok)}`,
    );
  }
}

async function blur() {
  const size = 2048;
  const plane = Float32Array.from({ length: size * size }, (_, i) => 30000 + 20000 * Math.sin(i * 0.37));
  const raw = { raw: { width: size, height: size, channels: 1 as const } };
  const times = (work: () => unknown) => Promise.all([work()]);
  let [ours, sharps] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  for (let round = 0; round < 3; round++) {
    const a = performance.now();
    await times(() => gaussian(plane, size, size, 16, TORUS));
    const b = performance.now();
    await times(() => sharp(plane, raw).blur(16).toColourspace('grey16').raw({ depth: 'float' }).toBuffer());
    ours = Math.min(ours, b - a);
    sharps = Math.min(sharps, performance.now() - b);
  }
  const ratio = ours / sharps;
  console.log(
    '\nGaussian σ 16 of one 2048² float plane against sharp’s float blur, best of three each, in turn',
  );
  console.log(
    `  ${ours.toFixed(0)} ms against ${sharps.toFixed(0)} ms: ${ratio.toFixed(2)}   aim 0.30: ${verdict(ratio <= 0.3)}`,
  );
}

async function seams() {
  console.log(
    '\nStrongest seam and blotch of every demo tile, at its own size, on Join’s result (sRGB-encoded values)',
  );
  for (const id of DEMO_IDS) {
    const bytes = await readFile(demoPicture(id));
    const { width, height } = await sharp(bytes).metadata();
    const engine = new Engine(
      sourceHost(async () => bytes),
      0,
    );
    const { verdicts } = await engine.evaluate({
      recipe: demoRecipe(id),
      source: { sha256: id, width, height },
      until: 'join',
    });
    const strongest = (kind: string) =>
      Math.max(...(verdicts.join?.figures ?? []).filter((f) => f.id.startsWith(kind)).map((f) => f.value));
    const [seam, blotch] = [strongest('seam'), strongest('blotch')];
    console.log(
      `  ${id.padEnd(10)} seam ${seam.toFixed(2)}, blotch ${blotch.toFixed(2)}   aim 1.00: ${verdict(seam <= 1 && blotch <= 1)}`,
    );
  }
}

/** RMS over the crop of (known log light − the light Even found), the mean aside, per channel. */
async function evenness() {
  console.log(
    '\nEven on the stucco, against the light it was photographed in (RMS of log light over the crop, R G B)',
  );
  const shot = makeSource('stucco', 900);
  const { width, height, samples, lightLog } = shot;
  const pixels = {
    width,
    height,
    channels: 3 as const,
    data: samples,
    originalWidth: width,
    originalHeight: height,
  };
  const engine = new Engine({ pixels: async () => pixels }, 0);
  const recipe = demoRecipe('stucco');
  const { recipe: decided } = await engine.evaluate({
    recipe,
    source: { sha256: 'stucco', width, height },
    size: 512,
    until: 'even',
  });
  const { fields } = decided.decisions.even!.data as { fields: number[][] };
  const { at } = cropMapper(width, height, recipe.stations.square);
  const spread = (values: number[]) => {
    const centre = values.reduce((a, b) => a + b, 0) / values.length;
    return Math.sqrt(values.reduce((sum, v) => sum + (v - centre) ** 2, 0) / values.length);
  };
  const n = 64;
  const [was, left] = [0, 1].map((kind) =>
    fields.map(([, a, b, c, d, e], channel) => {
      const values: number[] = [];
      for (let j = 0; j < n; j++) {
        for (let i = 0; i < n; i++) {
          const [x, y] = at((i + 0.5) / n, (j + 0.5) / n);
          const truth = lightLog[channel][Math.floor(y) * width + Math.floor(x)];
          const u = (2 * (i + 0.5)) / n - 1;
          const v = (2 * (j + 0.5)) / n - 1;
          values.push(truth - kind * (a * u + b * v + c * u * u + d * u * v + e * v * v));
        }
      }
      return spread(values);
    }),
  );
  const words = (values: number[]) => values.map((v) => v.toFixed(3)).join(' ');
  console.log(
    `  before ${words(was)}, after ${words(left)}   aim 0.030: ${verdict(Math.max(...left) <= 0.03)}`,
  );
}

/** A pass in which nothing has changed, of a tile with many strokes. */
async function cached() {
  const size = 256;
  const STROKES = 500;
  const POINTS = 40;
  const shot = makeSource('pamments', 400);
  const { width, height, samples } = shot;
  const pixels = {
    width,
    height,
    channels: 3 as const,
    data: samples,
    originalWidth: width,
    originalHeight: height,
  };
  const engine = new Engine({ pixels: async () => pixels }, 2 ** 30);
  const plain = demoRecipe('pamments');
  const repairs = Array.from({ length: STROKES }, (_, k) => ({
    kind: 'clone' as const,
    points: Array.from({ length: POINTS }, (_point, i): [number, number] => [
      ((k * 37) % 100) / 100 + i / 4000,
      ((k * 61) % 100) / 100,
    ]),
    radius: 0.004,
    softness: 0.4,
    opacity: 1,
    offset: [0.25, 0.1] as [number, number],
  }));
  const stations = { ...plain.stations, join: { ...plain.stations.join, repairs } };
  const source = { sha256: 'pamments', width, height };
  const pass = (recipe: Recipe) => engine.evaluate({ recipe, source, size });
  const { recipe } = await pass({ ...plain, stations });
  const times: number[] = [];
  for (let k = 0; k < 15; k++) {
    const start = performance.now();
    await pass(recipe);
    times.push(performance.now() - start);
  }
  const median = times.sort((a, b) => a - b)[7];
  console.log(`\nA fully cached pass with ${STROKES} strokes of ${POINTS} points, median of 15`);
  console.log(`  ${median.toFixed(1)} ms   aim 10 ms: ${verdict(median <= 10)}`);
}

const FIGURES = { blur, cached, evenness, seams, bakes };

// npm run figures [-- name …]: all figures, or those named.
const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !Object.hasOwn(FIGURES, name));
if (unknown.length > 0) {
  console.error(`Figures are ${Object.keys(FIGURES).join(', ')}; not ${unknown.join(', ')}.`);
  process.exit(2);
}
try {
  await makeMissingPictures();
  for (const [name, print] of Object.entries(FIGURES)) {
    if (asked.length === 0 || asked.includes(name)) await print();
  }
} finally {
  await rm(folder, { recursive: true, force: true });
}
