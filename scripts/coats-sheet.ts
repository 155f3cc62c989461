import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { sourceHost } from '@zesty-tile/codecs';
import {
  BLEND_MODES,
  COAT_ALONE,
  COAT_PARTS,
  type Coat,
  Engine,
  KERNELS,
  newCoat,
  newOutput,
  newPart,
  type PartName,
  type Raster,
  resizeArea,
} from '@zesty-tile/core';
import { demoPicture, demoRecipe, makeMissingPictures } from '@zesty-tile/demo';
import { contactSheet } from './contact-sheet.ts';

// Draws docs/coats.png: every kind of mask, as it selects on a demo tile, and every blend mode over it.

const OUT = fileURLToPath(new URL('../docs/coats.png', import.meta.url));
const CELL = 104;
const COLUMNS = 12;

const SOURCE = { sha256: 'pamments', width: 1600, height: 1200 };
await makeMissingPictures(['pamments']);
const bytes = await readFile(demoPicture('pamments'));
const engine = new Engine(
  sourceHost(async () => bytes),
  2 ** 31,
);
const recipe = demoRecipe('pamments');

const coatOf = (parts: object[], outputs: object[]): Coat => ({
  ...newCoat({}),
  id: 'shown',
  parts: parts as Coat['parts'],
  outputs: outputs as Coat['outputs'],
});
const withCoat = (coat: Coat) => ({
  ...recipe,
  stations: { ...recipe.stations, coats: { stack: [coat], groups: [] } },
});

interface Cell {
  words: string;
  picture: Raster;
  kind: 'grey' | 'colour';
}

async function maskCell(words: string, by: PartName, changes: object): Promise<Cell> {
  const coat = coatOf([newPart(by, changes)], [newOutput('constant', { channel: 'roughness' })]);
  const found = await engine.answer(
    COAT_ALONE,
    { recipe: withCoat(coat), source: SOURCE },
    { id: 'shown', what: 'mask' },
  );
  return { words, picture: found!.picture, kind: 'grey' };
}

async function blendCell(words: string, blend: string): Promise<Cell> {
  const stops = [
    { at: 0, colour: '#1d3d5c', value: 0 },
    { at: 0.5, colour: '#7a8f3a', value: 0.5 },
    { at: 1, colour: '#f0e0a0', value: 1 },
  ];
  const ramp = newOutput('ramp', {
    channel: 'colour',
    driver: 'part',
    part: 1,
    plane: 'cover',
    stops,
    blend,
  });
  // The first part drives the ramp, and the coat is everywhere all the same.
  const everywhere = [
    newPart('gradient', {
      ends: [
        [0, 0.5],
        [0.96, 0.5],
      ],
    }),
    newPart('whole', { how: 'or' }),
  ];
  const { surface } = await engine.evaluate({
    recipe: withCoat(coatOf(everywhere, [ramp])),
    source: SOURCE,
    size: 256,
    until: 'coats',
    withoutVerdicts: true,
  });
  return { words, picture: surface!.colour, kind: 'colour' };
}

/** The options of a choice of a kind of part, with their words. */
function optionsOf(by: keyof NonNullable<typeof COAT_PARTS.variants>['of'], key: string): [string, string][] {
  const { options, names } = COAT_PARTS.variants!.of[by].settings[key] as unknown as {
    options: readonly string[];
    names: readonly string[];
  };
  return options.map((option, k) => [option, names[k]]);
}

const cells: Cell[] = [];
for (const [map, words] of optionsOf('range', 'map')) {
  if (map !== 'supplied') cells.push(await maskCell(words, 'range', { map }));
}
cells.push(await maskCell('Colour', 'colour', { colour: '#b0795a', reach: 0.06 }));
for (const [kind, words] of optionsOf('noise', 'kind')) {
  cells.push(
    await maskCell(words, 'noise', {
      kind,
      sizeMm: 240,
      stretch: kind === 'directional' ? 3 : 1,
      degrees: 30,
    }),
  );
}
for (const [kind, words] of optionsOf('pattern', 'kind')) {
  cells.push(
    await maskCell(words, 'pattern', { kind, across: 4, down: 4, jointMm: 24, bevelMm: 30, pick: 'profile' }),
  );
}
for (const [kind, words] of optionsOf('gradient', 'kind')) {
  cells.push(
    await maskCell(words, 'gradient', {
      kind,
      ends: [
        [0.3, 0.3],
        [0.7, 0.6],
      ],
      highMm: 5,
    }),
  );
}
for (const [kind, words] of optionsOf('shape', 'kind')) {
  cells.push(await maskCell(words, 'shape', { kind, widthMm: 800, heightMm: 600, degrees: 15, lineMm: 60 }));
}
cells.push(
  await maskCell('Part of my shape', 'own-shape', {
    loops: [[0.15, 0.2, 0.55, 0.15, 0.6, 0.5, 0.8, 0.55, 0.7, 0.85, 0.3, 0.8]],
    marginMm: 20,
  }),
);
cells.push(await maskCell('Picture', 'picture', { picture: { ...SOURCE, name: 'Photo' } }));
const WAVE = Array.from({ length: 25 }, (_, k): [number, number] => [
  0.12 + 0.032 * k,
  0.5 + 0.2 * Math.sin(k / 3.8),
]);
const STROKE = { points: WAVE, radius: 0.06, softness: 0.5, erase: false };
const PRINTS = { spacing: 1, turning: 'along', degrees: 0, size: 0.4, stray: 0.3, tint: 0, seed: 3 } as const;
const RING = Array.from({ length: 37 }, (_, k): [number, number] => [
  0.5 + 0.3 * Math.sin((2 * Math.PI * k) / 36),
  0.5 + 0.3 * Math.cos((2 * Math.PI * k) / 36),
]);
for (const [words, strokes] of Object.entries({
  Painted: [STROKE],
  'Painted prints': [{ ...STROKE, softness: 0.1, prints: { ...PRINTS, stamp: 'leaf' } }],
  'Painted turned': [
    {
      ...STROKE,
      points: WAVE.slice(4, 12).map(([x, y]) => [x, y - 0.3]),
      radius: 0.025,
      turns: { count: 5, x: 0.5, y: 0.5 },
    },
  ],
  'Painted, filled': [
    { ...STROKE, points: RING, radius: 0.02, softness: 0, paint: { colour: '#000080' } },
    { ...STROKE, points: [[0.5, 0.5]], flow: 0.5, fill: { tolerance: 0.3, gap: 0 } },
  ],
})) {
  cells.push(await maskCell(words, 'strokes', { strokes }));
}
for (const [stamp, words] of optionsOf('scatter', 'stamp')) {
  cells.push(await maskCell(words, 'scatter', { stamp, sizeMm: 420, spacingMm: 380, pick: 'profile' }));
}
for (const [name, { title }] of Object.entries(BLEND_MODES)) cells.push(await blendCell(title, name));

const small = cells.map(({ words, picture, kind }) => {
  const { planes } = resizeArea(picture, CELL, CELL);
  const [grey] = planes;
  const rgba =
    kind === 'colour'
      ? KERNELS.screenCodes(planes, 'colour')
      : KERNELS.screenCodes([grey, grey, grey], { gain: 1, base: 0 });
  return { words, rgba };
});
await contactSheet(small, { columns: COLUMNS, cell: CELL }).png({ palette: true, quality: 90 }).toFile(OUT);
console.log(`${cells.length} kinds of masks and blends: ${OUT}`);
