import {
  COAT_OUTPUTS,
  COAT_PARTS,
  COAT_SETTINGS,
  type Coat,
  type CoatOutput,
  type CoatPart,
  defaultsOf,
  newItem,
  type PartName,
  type SettingsOf,
  type ValueName,
} from '@zesty-tile/core';

/** A part of a mask from what of it is not as usual. */
export const part = (by: PartName, changes: object = {}): CoatPart =>
  ({ ...newItem(COAT_PARTS, by), ...changes }) as CoatPart;

/** An output from what of it is not as usual. */
export const output = (by: ValueName, channel: CoatOutput['channel'], changes: object = {}): CoatOutput =>
  ({ ...newItem(COAT_OUTPUTS, by), channel, ...changes }) as CoatOutput;

/** A coat; its id follows from its name. */
export const coat = (name: string, parts: CoatPart[], outputs: CoatOutput[], strength = 1): Coat => ({
  ...(defaultsOf(COAT_SETTINGS as SettingsOf) as unknown as Coat),
  id: name.toLowerCase().replace(/[^a-z0-9]+/g, '-'),
  name,
  strength,
  parts,
  outputs,
});

/** Stops of a ramp at even places, by their colours. */
export const stops = (...colours: string[]) =>
  colours.map((colour, k) => ({
    at: colours.length > 1 ? k / (colours.length - 1) : 0,
    colour,
    value: colours.length > 1 ? k / (colours.length - 1) : 0,
  }));
