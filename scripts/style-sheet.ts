import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { sha256Of, sourceHost, threads } from '@zesty-tile/codecs';
import {
  Engine,
  KERNELS,
  newRecipe,
  Raster,
  type Recipe,
  resizeArea,
  type StationSettings,
} from '@zesty-tile/core';
import { DEMO_IDS, demoPicture, demoRecipe, makeMissingPictures } from '@zesty-tile/demo';
import sharp from 'sharp';
import { contactSheet } from './contact-sheet.ts';
import { STYLE_KINDS } from './style-kinds.ts';

// Draws docs/style-dials.jpg, every dial of Style at three values, and docs/style-kinds.jpg, kinds of surfaces at three amounts.

const outOf = (name: string) => fileURLToPath(new URL(`../docs/${name}`, import.meta.url));
const SIZE = 512;
const CELL = 168;

type Style = Partial<StationSettings['style']>;

interface Cell {
  words: string;
  picture: Raster;
}

const files = new Map<string, Uint8Array>();
const team = threads();
const engine = new Engine(
  Object.assign(
    sourceHost(async ({ sha256 }) => files.get(sha256)!),
    { team },
  ),
  2 ** 30,
);

interface Subject {
  recipe: Recipe;
  source: { sha256: string; width: number; height: number };
}

async function subjectOf(bytes: Uint8Array, recipe: Recipe): Promise<Subject> {
  const { width, height } = await sharp(bytes).metadata();
  const sha256 = sha256Of(bytes);
  files.set(sha256, bytes);
  return { recipe, source: { sha256, width: width!, height: height! } };
}

/** A subject painted with these dials: its colour, and the same lit from the upper left. */
async function painted({ recipe, source }: Subject, style: Style): Promise<{ colour: Raster; lit: Raster }> {
  const stations = { ...recipe.stations, style: { ...recipe.stations.style, ...style } };
  const { outputs } = await engine.evaluate({
    recipe: { ...recipe, stations },
    source,
    size: SIZE,
    until: 'relief',
    without: ['relief.occlusion'],
    withoutVerdicts: true,
  });
  const { picture, alpha } = outputs.style!;
  const [x, y, z] = outputs.relief!.normal.planes;
  const seen = (value: number, i: number) => (alpha ? value * alpha[i] + 0.85 * (1 - alpha[i]) : value);
  const colour = picture.mapPlanes((plane) => plane.map(seen));
  const lit = colour.mapPlanes((plane) =>
    plane.map((value, i) =>
      Math.min(1, value * (0.35 + (0.65 * Math.max(0, -0.5 * x[i] + 0.5 * y[i] + 0.7 * z[i])) / 0.7)),
    ),
  );
  return { colour, lit };
}

/** The middle of a picture, at its own size. */
const middle = (picture: Raster): Raster =>
  picture.cut((picture.width - CELL) / 2, (picture.height - CELL) / 2, CELL, CELL);

/** A picture repeated three times each way, made small. */
function repeated(picture: Raster): Raster {
  const small = resizeArea(picture, CELL / 3, CELL / 3);
  return new Raster(
    CELL,
    CELL,
    small.planes.map((plane) =>
      Float32Array.from({ length: CELL * CELL }, (_, i) => {
        const [x, y] = [(i % CELL) % (CELL / 3), Math.floor(i / CELL) % (CELL / 3)];
        return plane[(y * CELL) / 3 + x];
      }),
    ),
  );
}

/** Writes cells row by row, their words below. */
async function write(name: string, cells: readonly Cell[], columns: number): Promise<void> {
  const coded = cells.map(({ words, picture }) => ({
    words,
    rgba: KERNELS.screenCodes(picture.planes, 'colour'),
  }));
  await contactSheet(coded, { columns, cell: CELL }).jpeg({ quality: 86 }).toFile(outOf(name));
  console.log(`${cells.length} pictures: docs/${name}`);
}

const DIALS: [key: keyof Style, words: string, values: number[]][] = [
  ['amount', 'Amount', [0.25, 0.5, 1]],
  ['shape', 'Shape', [0, 0.5, 1]],
  ['edges', 'Edges kept', [0, 0.5, 1]],
  ['colours', 'Few colours', [0, 0.5, 1]],
  ['brush', 'Brush size', [0, 0.5, 1]],
  ['marks', 'Marks', [0, 0.5, 1]],
  ['variety', 'Variety', [0, 0.5, 1]],
  ['seed', 'Seed', [1, 2, 3]],
  ['light', 'Light', [0, 0.5, 1]],
  ['lightDegrees', 'Light from', [315, 45, 180]],
  ['ink', 'Ink', [0, 0.5, 1]],
  ['depth', 'Depth of marks, lit', [0, 0.5, 1]],
];

await makeMissingPictures(DEMO_IDS);
const copper = await subjectOf(await readFile(demoPicture('copper')), demoRecipe('copper'));
const dials: Cell[] = [];
for (const [key, words, values] of DIALS) {
  for (const value of values) {
    const { colour, lit } = await painted(copper, { amount: 1, [key]: value });
    dials.push({ words: `${words} ${value}`, picture: middle(key === 'depth' ? lit : colour) });
  }
}
await write('style-dials.jpg', dials, 6);

/** The recipe of a picture that is a tile already. */
function tileRecipe(): Recipe {
  const recipe = newRecipe();
  Object.assign(recipe.stations.square, { size: SIZE, share: 1 });
  Object.assign(recipe.stations.even, { amount: 0 });
  Object.assign(recipe.stations.join, { method: 'none' });
  return recipe;
}

async function pngOf(
  kind: (size: number) => { picture: Raster; alpha: Float32Array | null },
): Promise<Uint8Array> {
  const { picture, alpha } = kind(SIZE);
  const codes = KERNELS.screenCodes(picture.planes, 'colour');
  if (alpha) for (const [i, value] of alpha.entries()) codes[4 * i + 3] = 255 * value;
  return sharp(Buffer.from(codes.buffer), { raw: { width: SIZE, height: SIZE, channels: 4 } })
    .png()
    .toBuffer();
}

const subjects: [string, Subject][] = [];
for (const id of DEMO_IDS) {
  subjects.push([id, await subjectOf(await readFile(demoPicture(id)), demoRecipe(id))]);
}
for (const [words, kind] of Object.entries(STYLE_KINDS)) {
  const recipe = tileRecipe();
  // Light joints lie low.
  if (words.includes('light joints')) Object.assign(recipe.stations.relief, { polarity: 'dark' });
  subjects.push([words, await subjectOf(await pngOf(kind), recipe)]);
}
const kinds: Cell[] = [];
for (const [words, subject] of subjects) {
  const of = async (amount: number) => painted(subject, { amount });
  const [photo, quarter, half, full] = [await of(0), await of(0.25), await of(0.5), await of(1)];
  kinds.push(
    { words, picture: middle(photo.colour) },
    { words: 'amount ¼', picture: middle(quarter.colour) },
    { words: 'amount ½', picture: middle(half.colour) },
    { words: 'amount 1', picture: middle(full.colour) },
    { words: 'lit', picture: middle(full.lit) },
    { words: '3 × 3', picture: repeated(full.colour) },
  );
}
await write('style-kinds.jpg', kinds, 6);
await team.end();
