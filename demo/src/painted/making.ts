import {
  type Coat,
  type CoatOutput,
  type CoatPart,
  newCoat,
  newOutput,
  newPart,
  type ValueName,
} from '@zesty-tile/core';

export const part = newPart;

/** An output into a channel. */
export const output = (by: ValueName, channel: CoatOutput['channel'], changes: object = {}): CoatOutput =>
  newOutput(by, { channel, ...changes });

/** A coat; its id follows from its name. */
export const coat = (name: string, parts: CoatPart[], outputs: CoatOutput[], strength = 1): Coat =>
  newCoat({ id: name.toLowerCase().replace(/[^a-z0-9]+/g, '-'), name, strength, parts, outputs });

/** Stops of a ramp at even places, by their colours. */
export const stops = (...colours: string[]) =>
  colours.map((colour, k) => ({
    at: colours.length > 1 ? k / (colours.length - 1) : 0,
    colour,
    value: colours.length > 1 ? k / (colours.length - 1) : 0,
  }));
