import { type ChartLine, lineOf } from '../../chart/chart.ts';
import { planeOfChannel, type SurfaceChannel } from '../../surface/surface.ts';
import { groupsOf } from './groups.ts';
import type { Channel } from './layers.ts';
import type { Coat, CoatGroup, CoatOutput, CoatsSettings } from './settings.ts';
import type { ValueKind } from './value/kind.ts';
import { VALUE_KINDS } from './value/values.ts';

/** The kind of an output's value. */
export const kindOf = ({ by }: CoatOutput) => VALUE_KINDS[by] as unknown as ValueKind;

/** Whether an output puts something into its channel. */
export const isInUse = (output: CoatOutput): boolean =>
  output.on && output.strength > 0 && kindOf(output).channels.includes(output.channel);

/** A coat that has an effect, with the groups that it is in. */
export interface UsedCoat {
  coat: Coat;
  groups: readonly CoatGroup[];
}

/** Coats that have an effect, the lowest first. */
export const coatsInUse = ({ stack, groups }: CoatsSettings): UsedCoat[] =>
  stack.flatMap((coat) => {
    const own = groupsOf(coat, groups);
    const counts = [coat, ...own].every(({ visible, strength }) => visible && strength > 0);
    return counts && coat.outputs.some(isInUse) ? [{ coat, groups: own }] : [];
  });

/** The line of the chart that a coat's colour is of; null where it is of none. */
export function colourLine({ outputs }: Coat): ChartLine | null {
  const output = outputs.find((one) => one.by === 'line' && one.channel === 'colour' && one.on);
  return output?.by === 'line' ? (lineOf(output) ?? null) : null;
}

/** What a coat's result depends on: no names. */
export const essenceOf = ({ coat: { strength, parts, outputs }, groups }: UsedCoat) => [
  strength,
  parts,
  outputs.filter(isInUse),
  groups.map((group) => [group.strength, group.parts]),
];

/** Coats as far as the topmost that changes the height: what the height depends on. */
export function coatsOfHeight(settings: CoatsSettings): CoatsSettings {
  const last = coatsInUse(settings).findLast(({ coat }) =>
    coat.outputs.some((one) => isInUse(one) && one.channel === 'height'),
  );
  const count = last ? settings.stack.indexOf(last.coat) + 1 : 0;
  return { ...settings, stack: settings.stack.slice(0, count) };
}

/** Whether some coat that has an effect puts something into a channel. */
export const changes = (settings: CoatsSettings, channel: Channel): boolean =>
  coatsInUse(settings).some(({ coat }) =>
    coat.outputs.some((one) => isInUse(one) && one.channel === channel),
  );

/** Opacity as a plane, or null where the tile is opaque. */
export function opacityPlane(opacity: SurfaceChannel | null, count: number): Float32Array | null {
  if (opacity === null || opacity === 1) return null;
  return planeOfChannel(opacity, count);
}
