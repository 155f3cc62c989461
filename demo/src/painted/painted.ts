import { readFile } from 'node:fs/promises';
import { plainPicture } from '@zesty-tile/codecs';
import { type Coat, newRecipe, type Recipe } from '@zesty-tile/core';
import { demoPicture } from '../generate.ts';
import { demoRecipe } from '../recipes.ts';
import { blossom } from './blossom.ts';
import { lantern } from './lantern.ts';
import { litter } from './litter.ts';
import { rain } from './rain.ts';
import { sacking } from './sacking.ts';

/** A tile of coats: what they lie on, and the recipe with them. */
export interface PaintedTile {
  name: string;
  tags: string[];
  sourceName: string;
  /** The file of its source. */
  source(): Promise<Uint8Array>;
  recipe: Recipe;
}

const SIZE = 1024;

interface Plain {
  hex: string;
  edgeMetres: number;
  stack: Coat[];
}

/** A tile that starts from one colour. */
function plain(name: string, tags: string[], { hex, edgeMetres, stack }: Plain): PaintedTile {
  const recipe = newRecipe();
  const { source, square, even, join } = recipe.stations;
  return {
    name,
    tags,
    sourceName: `${hex}.png`,
    source: () => plainPicture(hex, SIZE),
    recipe: {
      ...recipe,
      stations: {
        ...recipe.stations,
        source: { ...source, origin: 'one colour' },
        square: { ...square, size: SIZE, share: 1, edgeMetres },
        even: { ...even, amount: 0 },
        join: { ...join, method: 'none' },
        coats: { stack, groups: [] },
      },
    },
  };
}

/** The terrace pamments with coats over them. */
function pammentsAfterRain(): PaintedTile {
  const recipe = demoRecipe('pamments');
  return {
    name: 'Terrace pamments after rain',
    tags: ['ground', 'clay', 'wet'],
    sourceName: 'limonaia-pamments.jpg',
    source: () => readFile(demoPicture('pamments')),
    recipe: { ...recipe, stations: { ...recipe.stations, coats: { stack: rain, groups: [] } } },
  };
}

/** Layered and painted tiles of the Limonaia. */
export const PAINTED: readonly PaintedTile[] = [
  plain('Lemon-blossom tile', ['wall', 'glazed'], blossom),
  plain('Sacking cloth', ['woven'], sacking),
  plain('Leaf litter', ['ground', 'cut out'], litter),
  plain('Lantern glass', ['glass', 'glowing'], lantern),
  pammentsAfterRain(),
];
