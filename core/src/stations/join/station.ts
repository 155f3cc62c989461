import * as v from 'valibot';
import type { WorkContext } from '../../engine/context.ts';
import { Raster } from '../../raster/raster.ts';
import { choice, number } from '../../settings/settings.ts';
import { mapGiven } from '../given.ts';
import { WIDEST_OVERLAP } from '../square/geometry.ts';
import { type EvenOutput, type JoinOutput, type SquareOutput, station } from '../types.ts';
import { assemble, type MaskOf } from './assemble.ts';
import { cutMask, decodePath, encodePath, minimumCut, refineCut } from './cut.ts';
import { AXES, joins, type OverlapPlan, planOverlap } from './overlap.ts';
import { pictureSeams } from './seam.ts';

const settings = {
  method: choice({
    label: 'Method',
    help: 'none: the picture already tiles. cut: the best way between two overlapping copies, blended band by band.',
    default: 'cut',
    options: ['none', 'cut'],
    names: ['None, it already tiles', 'Cut'],
  }),
  axes: choice({
    label: 'Axes',
    help: 'Which edges meet: both, only left and right (across), only top and bottom (down), or neither.',
    default: 'both',
    options: AXES,
    names: ['Both', 'Only across', 'Only down', 'Neither'],
  }),
  overlap: number({
    label: 'Overlap',
    help: 'Width of the strip in which the cut may wander, as a share of the tile.',
    default: 1 / 6,
    min: 0.05,
    max: WIDEST_OVERLAP,
    step: 0.005,
    unit: '',
  }),
};

/** What Join reads: the evened crop, and Square's for the picture as it was before. */
export interface JoinInput {
  even: EvenOutput;
  square: SquareOutput;
}

/** The tile vectors in crop edges, and the cut of each joined axis at the working size. */
export interface JoinDecision {
  workingSize: number;
  vectorU: [number, number];
  vectorV: [number, number];
  cutX: string | null;
  cutY: string | null;
}

const planFor = (square: SquareOutput, size: number, overlap: number, axes: (typeof AXES)[number]) => {
  const { left, right, top, bottom } = square.margins;
  return planOverlap(
    { left: left / size, right: right / size, top: top / size, bottom: bottom / size },
    overlap,
    axes,
  );
};

/** A tile without any joining: the crop alone. */
function cropOnly(picture: Raster, square: SquareOutput, size: number): Raster {
  return picture.cut(square.margins.left, square.margins.top, size, size);
}

interface CutTile {
  picture: Raster;
  cuts: { x: string | null; y: string | null };
}

/** The tile at the working size and the cut that was found for it, made once for deciding and running. */
const cutTile = (
  input: JoinInput,
  plan: OverlapPlan,
  size: number,
  chosen: { axes: string; overlap: number },
  context: WorkContext,
): Promise<CutTile> =>
  context.part('cut tile', [chosen.axes, chosen.overlap], async () => {
    const cuts: CutTile['cuts'] = { x: null, y: null };
    const find: MaskOf = (axis, strip, cyclic) => {
      const path = minimumCut(strip, cyclic);
      cuts[axis] = encodePath(path);
      return cutMask(strip, path);
    };
    const { picture } = input.even;
    const tile = await assemble(picture, input.square.margins, size, plan, find, context.breathe);
    return { picture: tile, cuts };
  });

const LOOK = 1.3;

/** Join: makes opposite edges meet. From here on the picture is a torus. */
export const join = station({
  name: 'join',
  line: 'Make the edges meet, so that no seam is seen.',
  settings,
  decision: v.strictObject({
    workingSize: v.number(),
    vectorU: v.tuple([v.number(), v.number()]),
    vectorV: v.tuple([v.number(), v.number()]),
    cutX: v.nullable(v.string()),
    cutY: v.nullable(v.string()),
  }),
  decidesOn: (chosen) => chosen,
  async decide(input: JoinInput, chosen, frame, context): Promise<JoinDecision> {
    const plan: OverlapPlan = planFor(input.square, frame.size, chosen.overlap, chosen.axes);
    const decision: JoinDecision = {
      workingSize: frame.size,
      vectorU: [plan.period, 0],
      vectorV: [0, plan.period],
      cutX: null,
      cutY: null,
    };
    if (chosen.method === 'none') return decision;
    const { cuts } = await cutTile(input, plan, frame.size, chosen, context);
    return { ...decision, cutX: cuts.x, cutY: cuts.y };
  },
  async run(input, chosen, decided, frame, context): Promise<JoinOutput> {
    const { square } = input;
    const { size } = frame;
    if (chosen.method === 'none' || chosen.axes === 'neither') {
      const opacity = square.given.opacity?.planes[0] ?? square.alpha;
      const alpha = opacity ? new Raster(square.picture.width, square.picture.height, [opacity]) : null;
      return {
        picture: cropOnly(input.even.picture, square, size),
        alpha: alpha ? cropOnly(alpha, square, size).planes[0] : null,
        given: await mapGiven(square.given, (raster) => cropOnly(raster, square, size)),
        before: async () => cropOnly(square.picture, square, size),
      };
    }
    const plan = planFor(square, size, chosen.overlap, chosen.axes);
    const scale = size / decided.workingSize;
    const masks = new Map<string, Float32Array>();
    // The cut is followed once, on the evened colour; alpha and the picture before Even use the same mask.
    const follow: MaskOf = (axis, strip, cyclic) => {
      const known = masks.get(axis);
      if (known) return known;
      const text = axis === 'x' ? decided.cutX : decided.cutY;
      if (text === null) throw new Error('The recipe’s decisions hold no cut for this axis.');
      const path = decodePath(text);
      const mask = cutMask(strip, scale === 1 ? path : refineCut(strip, path, scale, cyclic));
      masks.set(axis, mask);
      return mask;
    };
    const lay = (picture: Raster) => assemble(picture, square.margins, size, plan, follow, context.breathe);
    const picture =
      scale === 1
        ? (await cutTile(input, plan, size, chosen, context)).picture
        : await lay(input.even.picture);
    let alpha: Float32Array | null = null;
    if (square.alpha) {
      const raster = new Raster(square.picture.width, square.picture.height, [square.alpha]);
      alpha = (await lay(raster)).planes[0].map((v) => Math.min(1, v));
    }
    const given = await mapGiven(square.given, lay);
    return { picture, alpha: given.opacity?.planes[0] ?? alpha, given, before: () => lay(square.picture) };
  },
  verdict(output, input, chosen, _decided, frame) {
    const f = pictureSeams(output.picture);
    const on = joins(chosen.axes);
    const shown = [
      ...(on.x
        ? [
            { id: 'seamX', label: 'Seam, left to right', value: f.seamX, unit: '', limit: 1 },
            { id: 'blotchX', label: 'Blotch, left to right', value: f.blotchX, unit: '', limit: 1 },
          ]
        : []),
      ...(on.y
        ? [
            { id: 'seamY', label: 'Seam, top to bottom', value: f.seamY, unit: '', limit: 1 },
            { id: 'blotchY', label: 'Blotch, top to bottom', value: f.blotchY, unit: '', limit: 1 },
          ]
        : []),
    ];
    if (shown.length === 0) {
      return {
        state: 'look',
        brief: 'does not tile',
        sentence: 'No edges are joined: the picture goes on as it is and will not repeat.',
        advice: 'Choose axes to make it a tile.',
        figures: [],
      };
    }
    const worst = shown.reduce((a, b) => (b.value > a.value ? b : a));
    const state = worst.value <= 1 ? 'fine' : worst.value <= LOOK ? 'look' : 'wrong';
    const plan = planFor(input.square, frame.size, chosen.overlap, chosen.axes);
    const shrunk = chosen.method === 'cut' && plan.period < 1;
    const kind = worst.id.startsWith('seam') ? 'seam' : 'blotch';
    const found = state === 'fine' ? 'Nothing shows at the tile’s edge' : 'The edge shows';
    return {
      state,
      brief: `${kind} ${worst.value.toFixed(2)}`,
      sentence: `${found}: the strongest ${kind} is ${worst.value.toFixed(2)} times the usual step inside the tile (${worst.label.split(', ')[1]}).`,
      advice: [
        state === 'fine'
          ? chosen.method === 'cut'
            ? 'Lay it 3 × 3 and follow the cut: broken rows and stones are for the eye to judge.'
            : ''
          : chosen.method === 'none'
            ? 'Choose the method cut.'
            : 'Move or turn the crop so that both sides show alike parts, or widen the overlap.',
        shrunk
          ? `The photo has no room around the crop, so the tile shows ${Math.round(100 * plan.period)} % of it.`
          : '',
      ]
        .filter(Boolean)
        .join(' '),
      figures: shown,
    };
  },
});
