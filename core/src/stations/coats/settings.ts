import { choice, flag, list, number, text, type Values, variantList } from '../../settings/kinds.ts';
import { HEIGHT_MODES } from './blend/heights.ts';
import { BLEND_MODES, BLEND_NAMES } from './blend/modes.ts';
import { CHANNELS } from './layers.ts';
import { parts } from './mask/parts.ts';
import { constant } from './value/constant.ts';
import { light } from './value/light.ts';
import { line } from './value/line.ts';
import { painted } from './value/painted.ts';
import { picture } from './value/picture.ts';
import { ramp } from './value/ramp.ts';
import { styled } from './value/styled.ts';
import { tile } from './value/tile.ts';
import { tone } from './value/tone.ts';
import { wetness } from './value/wetness.ts';

/** What every output of a coat has, whatever its value is. */
const OUTPUT = {
  channel: choice({
    label: 'Into',
    help: 'The channel that the coat changes.',
    default: 'colour',
    options: CHANNELS,
    names: ['Colour', 'Roughness', 'Metallic', 'Height', 'Opacity', 'Emission', 'F0'],
  }),
  on: flag({ label: 'On', help: 'Off, the channel stays as it is below.', default: true }),
  strength: number({
    label: 'Strength',
    help: 'How much of the value is put in.',
    default: 1,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  blend: choice({
    label: 'Blend',
    help: 'How the value meets what is below, in every channel but height.',
    default: 'normal',
    options: BLEND_NAMES,
    names: BLEND_NAMES.map((name) => BLEND_MODES[name].title),
  }),
  inLight: flag({
    label: 'Linear light',
    help: 'Blend modes work on sRGB-encoded values, as painters expect; on, they work on linear light. Normal always does.',
    default: false,
  }),
  heightBlend: choice({
    label: 'Height is',
    help: 'Added; raised at least to the value; lowered at most to it; replaced by it; or levelled: brought to the mean of what is covered, and the value above it.',
    default: 'add',
    options: HEIGHT_MODES,
    names: ['Added', 'Raised to', 'Lowered to', 'Replaced', 'Levelled'],
  }),
};

const variantOf = <const S extends object>({ title, settings }: { title: string; settings: S }) => ({
  title,
  settings: { ...OUTPUT, ...settings },
});

const outputs = variantList({
  key: 'by',
  label: 'Outputs',
  help: 'What the coat puts into each channel.',
  most: 14,
  itemWords: ({ channel }) => OUTPUT.channel.names[CHANNELS.indexOf(channel)].toLowerCase(),
  variants: {
    constant: variantOf(constant),
    ramp: variantOf(ramp),
    line: variantOf(line),
    picture: variantOf(picture),
    tile: variantOf(tile),
    wetness: variantOf(wetness),
    light: variantOf(light),
    tone: variantOf(tone),
    painted: variantOf(painted),
    styled: variantOf(styled),
  },
});

const LONGEST_ID = 40;
const IDS = { expression: /^[a-z0-9-]{1,40}$/, words: 'must be lower-case letters, digits and dashes' };
const NO_ID = { expression: /^[a-z0-9-]{0,40}$/, words: IDS.words };

const COAT = {
  id: text({
    label: 'Id',
    help: 'Different for every coat: lower-case letters, digits and dashes.',
    default: 'coat',
    longest: LONGEST_ID,
    pattern: IDS,
  }),
  name: text({
    label: 'Name',
    help: 'Its name in the interface.',
    default: 'Coat',
    shortest: 1,
    longest: 60,
  }),
  visible: flag({ label: 'Visible', help: 'Off, the coat has no effect.', default: true }),
  strength: number({
    label: 'Strength',
    help: 'How much of the coat there is.',
    default: 1,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  group: text({
    label: 'Group',
    help: 'The id of the group that it is in; empty where it is in none.',
    default: '',
    longest: LONGEST_ID,
    pattern: NO_ID,
  }),
  parts,
  outputs,
};

const GROUP = {
  id: text({
    label: 'Id',
    help: 'Different for every group: lower-case letters, digits and dashes.',
    default: 'group',
    longest: LONGEST_ID,
    pattern: IDS,
  }),
  name: text({
    label: 'Name',
    help: 'Its name in the interface.',
    default: 'Group',
    shortest: 1,
    longest: 60,
  }),
  visible: flag({ label: 'Visible', help: 'Off, its coats have no effect.', default: true }),
  strength: number({
    label: 'Strength',
    help: 'How much of its coats there is.',
    default: 1,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  within: text({
    label: 'Within',
    help: 'The id of the group that it is in itself; empty where it is in none.',
    default: '',
    longest: LONGEST_ID,
    pattern: NO_ID,
  }),
  parts,
};

/** Coats that have a mask and a strength in common. */
export type CoatGroup = Values<typeof GROUP>;
export const COAT_GROUP_SETTINGS = GROUP;

/** One layer: a mask, and what it puts into each channel. */
export type Coat = Values<typeof COAT>;
export type CoatOutput = Coat['outputs'][number];
export const COAT_SETTINGS = COAT;
export const COAT_OUTPUTS = outputs;
export const COAT_PARTS = parts;

export const settings = {
  stack: list({
    label: 'Coats',
    help: 'Layers over the tile, the lowest first. Each sees only what is below it.',
    most: 64,
    identity: 'id',
    item: COAT,
    itemWords: ({ name }) => name,
  }),
  groups: list({
    label: 'Groups',
    help: 'Coats that have a mask and a strength in common.',
    most: 64,
    identity: 'id',
    item: GROUP,
    itemWords: ({ name }) => name,
  }),
};
export type CoatsSettings = Values<typeof settings>;
