import { number } from '../../settings/kinds.ts';
import type { Surface } from '../../surface/surface.ts';
import type { Figure, Verdict } from '../../verdict.ts';
import { coats } from '../coats/station.ts';
import { NOTHING_TO_DECIDE, station } from '../station.ts';
import { agreementOf } from './agreement.ts';
import type { ProofOutput } from './output.ts';
import { findRepeats, PLAIN, repeatFigure } from './repeats.ts';

const settings = {
  most: number({
    label: 'Spots',
    help: 'How many spots that will be seen repeating are numbered, the strongest first.',
    default: 8,
    min: 1,
    max: 40,
    step: 1,
    unit: '',
  }),
};

/** How much of the tile is open, and how much neither open nor closed. */
function opacityFigures(alpha: Float32Array): Figure[] {
  let holes = 0;
  let between = 0;
  for (const value of alpha) {
    if (value < 0.5) holes++;
    if (value > 0.1 && value < 0.9) between++;
  }
  return [
    { id: 'holes', label: 'Open', value: (100 * holes) / alpha.length, unit: '%' },
    { id: 'between', label: 'Neither open nor closed', value: (100 * between) / alpha.length, unit: '%' },
  ];
}

/** Proof: what will be noticed when the tile is laid in the game. */
export const proof = station({
  name: 'proof',
  line: 'Preview the tile as the game shows it and find what stands out.',
  settings,
  reads: [coats],
  shows: 'albedo',
  weight: 3,
  of: 'tile',
  measuredLast: true,
  ...NOTHING_TO_DECIDE,
  async run(surface: Surface, _chosen, _decided, frame, context): Promise<ProofOutput> {
    return {
      repeats: await findRepeats(surface.colour, frame.edges, context.checkpoint, context.team),
    };
  },
  async verdict({ repeats }, surface, _chosen, _decided, frame, { checkpoint }): Promise<Verdict> {
    const { normal, relief, opacity } = surface;
    // Only what goes on over both edges can be integrated.
    const isTorus = frame.edges.x === 'wrap' && frame.edges.y === 'wrap';
    const agreement = isTorus ? await agreementOf(normal, relief, frame.green, () => checkpoint(1)) : null;
    const figure = repeatFigure(repeats);
    const density = frame.wantedSize / frame.edgeMetres;
    const count = repeats.length;
    const isPlain = count > 0 && repeats[0].strength >= PLAIN;
    const found = `${count} ${isPlain ? 'visible' : 'faint'} ${count === 1 ? 'repeat' : 'repeats'}`;
    const words =
      count === 0
        ? 'Nothing stands out: no spot repeats visibly from afar.'
        : `${found}; strongest ${repeats[0].strength.toFixed(1)} × the median.`;
    return {
      state: isPlain ? 'look' : 'fine',
      brief: count === 0 ? 'nothing repeats' : found,
      sentence: `${words} ${density.toFixed(0)} px/m.`,
      advice: isPlain ? 'Tone the spots down, or repair them at Join.' : '',
      figures: [
        { id: 'repeat', label: 'Repeat figure', value: figure, unit: '', digits: 1 },
        {
          id: 'strongest',
          label: 'Strongest spot',
          value: count > 0 ? repeats[0].strength : 0,
          unit: '×',
          digits: 1,
        },
        ...(agreement
          ? [
              {
                id: 'apart',
                label: 'Normals unexplained by height',
                value: 100 * agreement.apart,
                unit: '%',
              },
              {
                id: 'told',
                label: 'Depth implied by normals',
                value: agreement.depth * frame.edgeMetres * 1000,
                unit: 'mm',
              },
              { id: 'deep', label: 'Depth of the height map', value: surface.depthMm, unit: 'mm' },
            ]
          : []),
        ...(opacity ? opacityFigures(opacity) : []),
        { id: 'density', label: 'Texel density', value: density, unit: 'px/m' },
      ],
    };
  },
});
