import { number } from '../../settings/settings.ts';
import type { Verdict } from '../../verdict.ts';
import type { TileOutputs } from '../crate/maps.ts';
import { NOTHING_TO_DECIDE, type ProofOutput, station } from '../types.ts';
import { findRepeats, repeatFigure } from './repeats.ts';

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

/** From here on a spot is plainly seen; below, one has to look for it. */
const PLAIN = 10;

/** Proof: what will be noticed when the tile is laid in the game. */
export const proof = station({
  name: 'proof',
  line: 'See it as the game will show it, and know what will be noticed.',
  settings,
  ...NOTHING_TO_DECIDE,
  async run(input: TileOutputs, _chosen, _decided, frame, context): Promise<ProofOutput> {
    return { repeats: await findRepeats(input.gauge.albedo, frame.edges, context.breathe) };
  },
  verdict({ repeats }, _input, _chosen, _decided, frame): Verdict {
    const figure = repeatFigure(repeats);
    const density = frame.wantedSize / frame.edgeMetres;
    const count = repeats.length;
    const isPlain = count > 0 && repeats[0].strength >= PLAIN;
    const words =
      count === 0
        ? 'Nothing stands out: from afar no spot will be seen repeating.'
        : `${count === 1 ? 'One spot stands' : `${count} spots stand`} out ${isPlain ? 'and will be seen repeating' : 'a little where the tile repeats'}; the strongest ${repeats[0].strength.toFixed(1)} times the usual.`;
    return {
      state: isPlain ? 'look' : 'fine',
      brief: count === 0 ? 'nothing repeats' : count === 1 ? '1 spot repeats' : `${count} spots repeat`,
      sentence: `${words} The tile has ${density.toFixed(0)} pixels for each metre.`,
      advice: isPlain ? 'Tone the spots down, or repair them at Join.' : '',
      figures: [
        { id: 'repeat', label: 'Repeat figure', value: figure, unit: '', digits: 1 },
        { id: 'density', label: 'Texel density', value: density, unit: 'px/m' },
      ],
    };
  },
});
