import { variantList } from '../../../settings/kinds.ts';
import { colour } from './colour.ts';
import { gradient } from './gradient.ts';
import { noise } from './noise.ts';
import { ownShape } from './own-shape.ts';
import { COMMON } from './part.ts';
import { pattern } from './pattern.ts';
import { picture } from './picture.ts';
import { range } from './range.ts';
import { scatter } from './scatter.ts';
import { shape } from './shape.ts';
import { strokes } from './strokes.ts';
import { whole } from './whole.ts';
import { zone } from './zone.ts';

/** Every way of selecting, by the name it has in recipes. */
export const PART_KINDS = {
  whole,
  strokes,
  range,
  colour,
  noise,
  pattern,
  gradient,
  shape,
  picture,
  'own-shape': ownShape,
  scatter,
  zone,
};
export type PartName = keyof typeof PART_KINDS;

const variantOf = <const S extends object>({ title, settings }: { title: string; settings: S }) => ({
  title,
  settings: { ...COMMON, ...settings },
});

/** The parts of a coat's mask. */
export const parts = variantList({
  key: 'by',
  label: 'Mask',
  help: 'Where the coat is: parts one after the other. Without any it is everywhere.',
  most: 12,
  itemWords: (_part, place) => `mask part ${place + 1}`,
  variants: {
    whole: variantOf(whole),
    strokes: variantOf(strokes),
    range: variantOf(range),
    colour: variantOf(colour),
    noise: variantOf(noise),
    pattern: variantOf(pattern),
    gradient: variantOf(gradient),
    shape: variantOf(shape),
    picture: variantOf(picture),
    'own-shape': variantOf(ownShape),
    scatter: variantOf(scatter),
    zone: variantOf(zone),
  },
});
export type Part = (typeof parts)['default'][number];
