import { defaultsOf, newItem } from '../../settings/kinds.ts';
import type { Part, PartName } from './mask/parts.ts';
import { COAT_OUTPUTS, COAT_PARTS, COAT_SETTINGS, type Coat, type CoatOutput } from './settings.ts';
import type { ValueName } from './value/values.ts';

/** A part of a mask, from what of it is not as usual. */
export const newPart = (by: PartName, changes: object = {}): Part =>
  ({ ...newItem(COAT_PARTS, by), ...changes }) as Part;

/** An output of a coat, from what of it is not as usual. */
export const newOutput = (by: ValueName, changes: object = {}): CoatOutput =>
  ({ ...newItem(COAT_OUTPUTS, by), ...changes }) as CoatOutput;

/** A coat, from what of it is not as usual. */
export const newCoat = (changes: Partial<Coat>): Coat => ({
  ...(defaultsOf(COAT_SETTINGS) as Coat),
  ...changes,
});
