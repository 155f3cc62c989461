import { readFile } from 'node:fs/promises';
import { plainPicture } from '@zesty-tile/codecs';
import { type Coat, newRecipe, type Recipe, type StationSettings } from '@zesty-tile/core';
import { demoPicture } from '../generate.ts';
import { demoRecipe } from '../recipes.ts';
import type { DemoId } from '../sources.ts';
import { bakedMaps } from './baked.ts';
import { blossom } from './blossom.ts';
import {
  BOARD_SHAPES,
  BOARDS_DEPTH,
  BOARDS_HEX,
  BOARDS_METRES,
  type BoardShape,
  boards,
  boardsShape,
} from './boards.ts';
import { gardenLantern } from './garden-lantern.ts';
import { lantern } from './lantern.ts';
import { litter } from './litter.ts';
import { rain } from './rain.ts';
import { sacking } from './sacking.ts';

/** A tile of coats: what they lie on, and the recipe with them. */
export interface PaintedTile {
  name: string;
  tags: string[];
  sourceName: string;
  /** The part of the terrace in the lit view that it lies on; none where that is left out. */
  laidOn?: string;
  /** The file of its source, those of the maps that were supplied with it, and the recipe that refers to them. */
  make(): Promise<{ source: Uint8Array; maps: readonly Uint8Array[]; recipe: Recipe }>;
}

const SIZE = 1024;

interface Plain {
  hex: string;
  edgeMetres: number;
  stack: Coat[];
}

/** The recipe of a tile that starts from one colour. */
function plainRecipe({ edgeMetres, stack }: Plain): Recipe {
  const recipe = newRecipe();
  const { source, square, even, join } = recipe.stations;
  return {
    ...recipe,
    stations: {
      ...recipe.stations,
      source: { ...source, origin: 'one colour' },
      square: { ...square, size: SIZE, share: 1, edgeMetres },
      even: { ...even, amount: 0 },
      join: { ...join, method: 'none' },
      coats: { stack, groups: [] },
    },
  };
}

/** A tile that starts from one colour. */
const plain = (name: string, tags: string[], given: Plain): PaintedTile => ({
  name,
  tags,
  sourceName: `${given.hex}.png`,
  make: async () => ({
    source: await plainPicture(given.hex, SIZE),
    maps: [],
    recipe: plainRecipe(given),
  }),
});

/** Boards of a crate: maps that were baked of their shape, coloured by the coats that all of them share. */
const crateBoards = (shape: BoardShape): PaintedTile => ({
  name: shape.name,
  tags: ['wood', 'painted'],
  sourceName: 'boards_height.png',
  async make() {
    const source = await plainPicture(BOARDS_HEX, SIZE);
    const of = (stack: Coat[]) => plainRecipe({ hex: BOARDS_HEX, edgeMetres: BOARDS_METRES, stack });
    const { given, files } = await bakedMaps(of(boardsShape(shape)), source, SIZE);
    const recipe = of(boards);
    const { source: own, relief } = recipe.stations;
    return {
      source,
      maps: files,
      recipe: {
        ...recipe,
        stations: {
          ...recipe.stations,
          source: { ...own, origin: 'baked maps', given },
          relief: { ...relief, depthMm: BOARDS_DEPTH },
        },
      },
    };
  },
});

/** A photo of the Limonaia under coats, or repainted. */
const onPhoto = (
  id: DemoId,
  name: string,
  tags: string[],
  changes: Partial<Pick<StationSettings, 'coats' | 'style'>>,
): PaintedTile => ({
  name,
  tags,
  sourceName: `limonaia-${id}.jpg`,
  async make() {
    const recipe = demoRecipe(id);
    return {
      source: await readFile(demoPicture(id)),
      maps: [],
      recipe: { ...recipe, stations: { ...recipe.stations, ...changes } },
    };
  },
});

/** Dials of Style for the tiles that are painted by it. */
const styled = (dials: Partial<StationSettings['style']>): StationSettings['style'] => ({
  ...newRecipe().stations.style,
  ...dials,
});

/** Layered and painted tiles of the Limonaia. */
export const PAINTED: readonly PaintedTile[] = [
  { ...plain('Lemon-blossom tile', ['wall', 'glazed'], blossom), laidOn: 'wall' },
  plain('Sacking cloth', ['woven'], sacking),
  plain('Leaf litter', ['ground', 'cut out'], litter),
  plain('Lantern glass', ['glass', 'glowing'], lantern),
  plain('Garden lantern', ['metal', 'glass', 'by parts'], gardenLantern),
  {
    ...onPhoto('pamments', 'Terrace pamments after rain', ['ground', 'clay', 'wet'], {
      coats: { stack: rain, groups: [] },
    }),
    laidOn: 'floor',
  },
  onPhoto('pamments', 'Painted pamments', ['ground', 'clay', 'painted'], {
    style: styled({ amount: 1, colours: 0.6, marks: 0.6, variety: 0.6, light: 0.6, depth: 0.6 }),
  }),
  onPhoto('copper', 'Painted copper', ['metal', 'painted'], {
    style: styled({ amount: 1, shape: 0.45, marks: 0.55, light: 0.75, ink: 0.15, depth: 0.5 }),
  }),
  ...BOARD_SHAPES.map((shape, k) => ({ ...crateBoards(shape), ...(k === 0 ? { laidOn: 'steps' } : {}) })),
];
