import * as v from 'valibot';
import { choice, colour, data, number, text, type Values, variantList } from '../settings/kinds.ts';
import { strokeEntries } from '../strokes/stroke.ts';

/** What a mask can be selected by the values of: 0..1, slope as a share of 90°. */
export const MASK_MAPS = [
  'luminance',
  'height',
  'slope',
  'cavity',
  'occlusion',
  'opacity',
  'roughness',
  'metallic',
  'joints',
] as const;
export type MaskMap = (typeof MASK_MAPS)[number];

/** Across: the left is drawn on the right too; down: the upper in the lower part; about the middle of the tile. */
export const MIRRORS = ['across', 'down', 'both'] as const;
export type Mirror = (typeof MIRRORS)[number];

/** A stroke and its mirror images: whether each is turned over across and down. */
export function mirrorImages(mirror: Mirror | undefined): readonly [across: boolean, down: boolean][] {
  const found: [boolean, boolean][] = [[false, false]];
  if (mirror === 'across' || mirror === 'both') found.push([true, false]);
  if (mirror === 'down' || mirror === 'both') found.push([false, true]);
  if (mirror === 'both') found.push([true, true]);
  return found;
}

/** Strokes by hand: each paints, or erases what was painted before it. */
export const strokesSchema = v.pipe(
  v.array(v.strictObject({ ...strokeEntries, erase: v.boolean(), mirror: v.optional(v.picklist(MIRRORS)) })),
  v.maxLength(2000),
);
export type MaskStroke = v.InferOutput<typeof strokesSchema>[number];

const how = choice({
  label: 'Combined by',
  help: 'and: within what the parts before it select. or: in addition to it. without: taken away from it. Of the first part it has no effect.',
  default: 'and',
  options: ['and', 'or', 'without'],
  names: ['And', 'Or', 'Without'],
});

const softness = (value: number) =>
  number({
    label: 'Softness',
    help: 'How gently the zone fades out.',
    default: value,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  });

const limit = (label: string, help: string, value: number) =>
  number({ label, help, default: value, min: 0, max: 1, step: 0.01, unit: '' });

const parts = variantList({
  key: 'by',
  label: 'Parts',
  help: 'What the zone is selected by, one part after the other.',
  fewest: 1,
  most: 12,
  itemWords: (_part, place) => `part ${place + 1}`,
  variants: {
    colour: {
      title: 'By colour',
      settings: {
        how,
        colour: colour({
          label: 'Colour',
          help: 'The colour that is selected, sRGB.',
          default: '#808080',
        }),
        reach: number({
          label: 'Reach',
          help: 'How far a colour may be from it, in OKLab, and still be half selected.',
          default: 0.05,
          min: 0.002,
          max: 1,
          step: 0.002,
          unit: '',
        }),
        softness: softness(0.4),
      },
    },
    range: {
      title: 'By range',
      settings: {
        how,
        map: choice({
          label: 'Map',
          help: 'The map whose values are selected.',
          default: 'height',
          options: MASK_MAPS,
          names: [
            'Luminance',
            'Height',
            'Slope (of 90°)',
            'Cavity',
            'Occlusion',
            'Opacity',
            'Given roughness',
            'Given metallic',
            'Joints',
          ],
        }),
        from: limit('From', 'The lowest value selected.', 0),
        to: limit('To', 'The highest value selected.', 0.4),
        softness: softness(0.2),
      },
    },
    brush: {
      title: 'By brush',
      settings: {
        how,
        strokes: data<MaskStroke[]>({
          ofPicture: true,
          onSheets: true,
          label: 'Strokes',
          help: 'What is painted and erased, in shares of the tile. Strokes stay with their picture.',
          default: [],
          schema: strokesSchema,
          example: '[{"points":[[0.2,0.3],[0.4,0.3]],"radius":0.05,"softness":0.5,"erase":false}]',
          words: (value) => (value.length === 1 ? '1 stroke' : `${value.length} strokes`),
        }),
      },
    },
  },
});

const settings = {
  id: text({
    label: 'Id',
    help: 'By which other settings refer to it: lower-case letters, digits and dashes.',
    default: 'zone',
    longest: 40,
    pattern: { expression: /^[a-z0-9-]{1,40}$/, words: 'must be lower-case letters, digits and dashes' },
  }),
  name: text({
    label: 'Name',
    help: 'Its name in the interface.',
    default: 'Zone',
    shortest: 1,
    longest: 60,
  }),
  parts,
  wetness: number({
    label: 'Wetness',
    help: 'How wet the zone is: water darkens a porous surface, smooths it, and reflects by its own F0.',
    default: 0,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
};

/** A named part of the tile. */
export type Mask = Values<typeof settings>;
/** One way of selecting; `how` combines it with what the parts before it selected. */
export type MaskPart = Mask['parts'][number];
/** What a mask's parts can be selected by. */
export type MaskPartKind = MaskPart['by'];
export const MASK_PARTS = parts;
export const MASK_SETTINGS = settings;
