import { newRecipe, type Recipe, type StationSettings } from '@zesty-tile/core';
import type { DemoId } from './sources.ts';

type Changes = { [S in keyof StationSettings]?: Partial<StationSettings[S]> } & Partial<
  Pick<Recipe, 'masks'>
>;

/** What an artist has set on each demo tile so far. The ripples still need a line of the chart. */
const CHANGES: Record<DemoId, Changes> = {
  pamments: {
    // Four paving squares of 310 mm.
    square: { turnDegrees: 1.6, share: 0.8267, edgeMetres: 1.24 },
    gauge: { line: 'fired-clay-red', countTo: 92 },
    relief: { depthMm: 6, polarity: 'dark', band5: 0.8, band6: 0.2, occlusionMm: 30, cavityMm: 8 },
    finish: { line: 'fired-clay-red' },
  },
  stucco: {
    square: { share: 0.83, edgeMetres: 1.25 },
    join: { overlap: 0.25 },
    gauge: { line: 'limewash' },
    relief: { depthMm: 4, occlusionMm: 25, cavityMm: 8 },
    finish: { line: 'limewash' },
  },
  shells: {
    square: { edgeMetres: 0.57 },
    gauge: { line: 'shell-crushed' },
    relief: { depthMm: 9, band1: 0.2, band2: 0.4, occlusionMm: 30, cavityMm: 6 },
    finish: { line: 'shell-crushed' },
  },
  cane: {
    // Five repeats of the weave, 52 mm each.
    square: { turnDegrees: -0.9, share: 0.8254, edgeMetres: 0.26 },
    gauge: { line: 'cane' },
    relief: { depthMm: 3, occlusionMm: 12, cavityMm: 4 },
    finish: { line: 'cane' },
  },
  copper: {
    masks: [
      {
        id: 'rubbed',
        name: 'Rubbed bare',
        wetness: 0,
        parts: [{ by: 'colour', how: 'and', colour: '#cd8a6c', reach: 0.09, softness: 0.35 }],
      },
    ],
    square: { share: 0.9, edgeMetres: 0.675 },
    gauge: {
      line: 'verdigris',
      zoneTones: [{ zone: 'rubbed', line: 'copper', ownLine: null, exposure: 0, contrast: 1 }],
    },
    relief: { depthMm: 4, band5: 0.8, band6: 0.4, occlusionMm: 25, cavityMm: 6 },
    finish: {
      line: 'verdigris',
      zoneFinish: [
        { zone: 'rubbed', line: 'copper', ownLine: null, band: [0.3, 0.5], f0: null, metallic: 'line' },
      ],
    },
  },
  ripples: {
    square: { share: 0.847, edgeMetres: 1.65 },
    join: { method: 'meet' },
  },
};

/** A recipe with some settings changed. */
export function changedRecipe({ masks = [], ...changes }: Changes): Recipe {
  const recipe = newRecipe();
  const stations = Object.fromEntries(
    Object.entries(recipe.stations).map(([name, settings]) => [
      name,
      { ...settings, ...changes[name as keyof StationSettings] },
    ]),
  ) as StationSettings;
  return { ...recipe, masks, stations };
}

/** The recipe a demo tile starts with. */
export const demoRecipe = (id: DemoId): Recipe => changedRecipe(CHANGES[id]);
