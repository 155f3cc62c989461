import { readFile } from 'node:fs/promises';
import { plainPicture } from '@zesty-tile/codecs';
import { type Coat, newRecipe, type Recipe } from '@zesty-tile/core';
import { demoPicture } from '../generate.ts';
import { demoRecipe } from '../recipes.ts';
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

/** The terrace pamments with coats over them. */
function pammentsAfterRain(): PaintedTile {
  const recipe = demoRecipe('pamments');
  return {
    name: 'Terrace pamments after rain',
    tags: ['ground', 'clay', 'wet'],
    sourceName: 'limonaia-pamments.jpg',
    make: async () => ({
      source: await readFile(demoPicture('pamments')),
      maps: [],
      recipe: { ...recipe, stations: { ...recipe.stations, coats: { stack: rain, groups: [] } } },
    }),
  };
}

/** Layered and painted tiles of the Limonaia. */
export const PAINTED: readonly PaintedTile[] = [
  { ...plain('Lemon-blossom tile', ['wall', 'glazed'], blossom), laidOn: 'wall' },
  plain('Sacking cloth', ['woven'], sacking),
  plain('Leaf litter', ['ground', 'cut out'], litter),
  plain('Lantern glass', ['glass', 'glowing'], lantern),
  plain('Garden lantern', ['metal', 'glass', 'by parts'], gardenLantern),
  { ...pammentsAfterRain(), laidOn: 'floor' },
  ...BOARD_SHAPES.map((shape, k) => ({ ...crateBoards(shape), ...(k === 0 ? { laidOn: 'steps' } : {}) })),
];
