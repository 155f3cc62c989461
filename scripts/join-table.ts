import { mkdir, readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { decodePicture, sourceHost } from '@zesty-tile/codecs';
import {
  Engine,
  JOIN_PROPOSALS,
  KERNELS,
  linearToSrgb,
  newRecipe,
  type Pixels,
  type Proposed,
  type Raster,
  type Recipe,
} from '@zesty-tile/core';
import { DEMO_IDS, demoPicture, demoRecipe, makeMissingPictures } from '@zesty-tile/demo';
import sharp from 'sharp';
import { MADE_SOURCES, photographed } from '../core/test/setup/sources.ts';
import { KINDS } from './join-kinds.ts';

const CACHE = 1e9;
const PHOTO = 720;
const LAID = 2;
const out = process.argv[2] ? fileURLToPath(new URL(process.argv[2], `file://${process.cwd()}/`)) : null;

/** The best tile laid 2 × 2, to be looked at. */
async function save(name: string, tile: Raster): Promise<void> {
  if (!out) return;
  await mkdir(out, { recursive: true });
  const { width, height } = tile;
  const planes = tile.planes.map(KERNELS.encodeSrgbPlane);
  const data = Buffer.alloc(3 * width * height * LAID * LAID);
  for (let y = 0; y < LAID * height; y++) {
    for (let x = 0; x < LAID * width; x++) {
      const from = (y % height) * width + (x % width);
      for (let c = 0; c < 3; c++) {
        data[3 * (y * LAID * width + x) + c] = Math.round(255 * Math.min(1, Math.max(0, planes[c][from])));
      }
    }
  }
  await sharp(data, { raw: { width: LAID * width, height: LAID * height, channels: 3 } })
    .png()
    .toFile(`${out}/${name.replaceAll(' ', '-')}.png`);
}

async function row(name: string, { best, proposals }: Proposed): Promise<void> {
  const { seams, score, made } = best;
  const cut = proposals.find((one) => one.method === 'cut')!;
  const none = proposals.find((one) => one.method === 'none')!;
  const cells = [
    name,
    best.method === 'cut' ? `cut, ${best.blend}` : best.method,
    made.from.by,
    Math.max(seams.seamX, seams.seamY).toFixed(2),
    Math.max(seams.blotchX, seams.blotchY).toFixed(2),
    score.detail.toFixed(2),
    score.score.toFixed(2),
    cut.score.score.toFixed(2),
    none.score.score.toFixed(2),
  ];
  console.log(`| ${cells.join(' | ')} |`);
  await save(name, made.picture);
}

function pixelsOf(picture: Raster): Pixels {
  const { width, height } = picture;
  const data = new Uint16Array(3 * width * height);
  for (let i = 0; i < width * height; i++) {
    for (let c = 0; c < 3; c++) {
      data[3 * i + c] = Math.round(65535 * linearToSrgb(Math.min(1, Math.max(0, picture.planes[c][i]))));
    }
  }
  return { width, height, channels: 3, data, originalWidth: width, originalHeight: height };
}

console.log('| source | proposed | copy from | seam | blotch | detail | unlike | cut alone | left open |');
console.log('|---|---|---|---|---|---|---|---|---|');
await makeMissingPictures(DEMO_IDS);
for (const id of DEMO_IDS) {
  const bytes = new Uint8Array(await readFile(demoPicture(id)));
  const { width, height } = await decodePicture(bytes);
  const engine = new Engine(
    sourceHost(async () => bytes),
    CACHE,
  );
  const recipe = demoRecipe(id);
  await row(id, await engine.answer(JOIN_PROPOSALS, { recipe, source: { sha256: id, width, height } }, null));
}
const MADE = Object.entries(MADE_SOURCES).map(
  ([name, source]) => [`${name} (photo)`, () => photographed(source)] as const,
);
for (const [name, make] of [...Object.entries(KINDS), ...MADE]) {
  const picture = make(PHOTO);
  const engine = new Engine({ pixels: async () => pixelsOf(picture) }, CACHE);
  const fresh = newRecipe();
  const recipe: Recipe = {
    ...fresh,
    stations: { ...fresh.stations, square: { ...fresh.stations.square, share: 0.78 } },
  };
  const source = { sha256: name, width: picture.width, height: picture.height };
  await row(name, await engine.answer(JOIN_PROPOSALS, { recipe, source }, null));
}
