import {
  choice,
  colour,
  defaultsOf,
  flag,
  MIRRORS,
  number,
  type Paint,
  type PaintStroke,
  type Prints,
  STAMP_NAMES,
  STAMPS,
  TURNINGS,
  type Values,
} from '@zesty-tile/core';
import { useMemo } from 'react';
import { create } from 'zustand';
import { useBench } from '../../../bench/state.ts';
import { type Owner, paintedChannels } from '../use-coats.ts';

const share = (label: string, help: string, value: number, least = 0) =>
  number({ label, help, default: value, min: least, max: 1, step: 0.05, unit: '' });

/** What the brush is like: not of the recipe, but of each stroke that is drawn. */
export const TIP = {
  radius: number({
    label: 'Radius',
    help: 'Radius of the brush, as a share of the tile’s longer edge. S makes it smaller, G larger.',
    default: 0.03,
    min: 0.002,
    max: 0.4,
    step: 0.002,
    unit: '',
  }),
  softness: share('Tip', 'How much of the radius fades out: 0 is a hard tip.', 0.3),
  flow: share('Flow', 'How much is put down at once. Below 1 strokes add up where they cross.', 1, 0.05),
  colour: colour({ label: 'Colour', help: 'The colour of the strokes, sRGB.', default: '#b3452c' }),
  roughness: share('Roughness', 'The roughness that strokes leave.', 0.5),
  metallic: share('Metallic', 'How metallic strokes are.', 1),
  heightMm: number({
    label: 'Height',
    help: 'The height that strokes leave; negative is down.',
    default: 1,
    min: -50,
    max: 50,
    step: 0.1,
    unit: 'mm',
  }),
  print: choice({
    label: 'Prints',
    help: 'One band along the stroke, or single prints: round, of a picture, or of a stamp.',
    default: 'band',
    options: ['band', 'round', 'picture', ...STAMP_NAMES],
    names: ['None: one band', 'Round', 'A picture', ...STAMP_NAMES.map((name) => STAMPS[name].title)],
  }),
  ownColours: flag({
    label: 'Its own colours',
    help: 'The picture carries its own colours in place of the colour of the brush.',
    default: true,
  }),
  spacing: number({
    label: 'Spacing',
    help: 'From one print to the next, in widths of the brush.',
    default: 0.6,
    min: 0.05,
    max: 5,
    step: 0.05,
    unit: '×',
  }),
  turning: choice({
    label: 'Turned',
    help: 'Which way prints point: as set, along the stroke, each at random, or where the pen leans.',
    default: 'along',
    options: TURNINGS,
    names: ['As set', 'Along the stroke', 'At random', 'As the pen leans'],
  }),
  degrees: number({
    label: 'Angle',
    help: 'By how much prints are turned clockwise.',
    default: 0,
    min: -180,
    max: 180,
    step: 1,
    unit: '°',
  }),
  size: share('Size variety', 'How much smaller prints are at random.', 0),
  stray: number({
    label: 'Stray',
    help: 'How far prints stray from the stroke at random, in radii.',
    default: 0,
    min: 0,
    max: 4,
    step: 0.05,
    unit: '×',
  }),
  tint: share('Tint variety', 'How much the lightness of prints strays at random.', 0),
  mirror: choice({
    label: 'Mirror',
    help: 'Strokes are drawn again on the other side of the tile’s middle. X takes the next.',
    default: 'none',
    options: ['none', ...MIRRORS],
    names: ['No', 'Across', 'Down', 'Both'],
  }),
  turns: number({
    label: 'Turned copies',
    help: 'How many times a stroke is drawn, turned about a place by equal parts of a whole turn.',
    default: 1,
    min: 1,
    max: 12,
    step: 1,
    unit: '',
  }),
  turnX: share('About, across', 'The place that copies are turned about, as a share of the width.', 0.5),
  turnY: share('About, down', 'The place that copies are turned about, as a share of the height.', 0.5),
  string: number({
    label: 'String',
    help: 'The brush is pulled by a string of this length, in radii: it draws calm curves and sharp corners.',
    default: 0,
    min: 0,
    max: 10,
    step: 0.25,
    unit: '×',
  }),
  tolerance: number({
    label: 'Tolerance',
    help: 'How far a colour may be from the one pressed on, in OKLab, and still be filled.',
    default: 0.06,
    min: 0.005,
    max: 0.5,
    step: 0.005,
    unit: '',
  }),
  gap: number({
    label: 'Close gaps',
    help: 'Gaps of a border up to this width are closed, as a share of the tile’s longer edge.',
    default: 0,
    min: 0,
    max: 0.1,
    step: 0.005,
    unit: '',
  }),
  hidden: flag({
    label: 'Hidden faces too',
    help: 'On the Sill, strokes also reach faces of the shape that are turned away or covered.',
    default: false,
  }),
  smooth: share('Smoothing', 'How much trembling of the hand is smoothed; fast strokes are followed.', 0),
};
export type Tip = Values<typeof TIP> & {
  /** The picture that is printed; null while none is chosen. */
  picture: NonNullable<Prints['picture']> | null;
};

/** Channels that strokes can carry something for, and by which of the brush's settings. */
export const CARRIED = {
  colour: 'colour',
  roughness: 'roughness',
  metallic: 'metallic',
  height: 'heightMm',
} as const;
export type CarriedChannel = keyof typeof CARRIED;

interface TipState {
  tip: Tip;
  /** What strokes carry where their coat puts it in. */
  carries: readonly CarriedChannel[];
  /** Whether a press fills a region instead of beginning a stroke. */
  fills: boolean;
}

export const useTip = create<TipState>(() => ({
  tip: { ...defaultsOf(TIP), picture: null },
  carries: ['colour'],
  fills: false,
}));

export const setTip = (changes: Partial<Tip>): void =>
  useTip.setState(({ tip }) => ({ tip: { ...tip, ...changes } }));

const MIRRORED: readonly Tip['mirror'][] = ['none', ...MIRRORS];
export const nextMirror = (): void =>
  useTip.setState(({ tip }) => ({
    tip: { ...tip, mirror: MIRRORED[(MIRRORED.indexOf(tip.mirror) + 1) % MIRRORED.length] },
  }));

/** Makes the brush larger or smaller by a factor. */
export const scaleTip = (by: number): void =>
  useTip.setState(({ tip }) => ({
    tip: {
      ...tip,
      radius: Math.min(TIP.radius.max!, Math.max(TIP.radius.min!, Math.round(1e4 * by * tip.radius) / 1e4)),
    },
  }));

function paintOf(tip: Tip, carries: readonly CarriedChannel[]): Paint | undefined {
  const paint = Object.fromEntries(carries.map((channel) => [CARRIED[channel], tip[CARRIED[channel]]]));
  return carries.length > 0 ? paint : undefined;
}

/** What a print is of: nothing more where it is round, as it is while no picture is chosen. */
function stampOf(
  { print, picture, ownColours }: Tip,
  carries: readonly CarriedChannel[],
): Pick<Prints, 'stamp' | 'picture' | 'ownColours'> {
  if (print === 'band' || print === 'round') return {};
  if (print !== 'picture') return { stamp: print };
  if (!picture) return {};
  return ownColours && carries.includes('colour') ? { picture, ownColours } : { picture };
}

/** A stroke of the brush as it is set; `seed` draws what is random. */
export function strokeOf(
  points: PaintStroke['points'],
  erase: boolean,
  seed: number,
  tip: Tip,
  carries: readonly CarriedChannel[],
): PaintStroke {
  const { radius, softness, flow, print, mirror, turns } = tip;
  const paint = erase ? undefined : paintOf(tip, carries);
  return {
    points,
    radius,
    softness,
    erase,
    ...(mirror === 'none' ? {} : { mirror }),
    ...(turns > 1 ? { turns: { count: turns, x: tip.turnX, y: tip.turnY } } : {}),
    ...(flow < 1 ? { flow } : {}),
    ...(paint ? { paint } : {}),
    ...(print === 'band'
      ? {}
      : {
          prints: {
            ...stampOf(tip, carries),
            spacing: tip.spacing,
            turning: tip.turning,
            degrees: tip.degrees,
            size: tip.size,
            stray: tip.stray,
            tint: tip.tint,
            seed,
          },
        }),
  };
}

/** A fill of the region about a place. */
export function fillOf(
  [u, v]: PaintStroke['points'][number],
  erase: boolean,
  tip: Tip,
  carries: readonly CarriedChannel[],
): PaintStroke {
  const { prints: _prints, ...stroke } = strokeOf([[u, v]], erase, 0, tip, carries);
  return { ...stroke, fill: { tolerance: tip.tolerance, gap: tip.gap } };
}

/** Lets strokes carry something for a channel, or no more. */
export const setCarried = (channel: CarriedChannel, isCarried: boolean): void =>
  useTip.setState(({ carries }) => ({
    carries: [...carries.filter((one) => one !== channel), ...(isCarried ? [channel] : [])],
  }));

/** What strokes of a part of a mask carry now: what the brush carries, as far as the coat puts it in. */
export function useCarried({ kind, id }: Owner, at: number): CarriedChannel[] {
  const coat = useBench((s) =>
    kind === 'coat' ? s.recipe.stations.coats.stack.find((one) => one.id === id) : undefined,
  );
  const carries = useTip((s) => s.carries);
  return useMemo(() => {
    const channels = coat ? paintedChannels(coat, at) : [];
    return carries.filter((channel) => channels.includes(channel));
  }, [coat, carries, at]);
}
