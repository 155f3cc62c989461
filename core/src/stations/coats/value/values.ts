import { constant } from './constant.ts';
import { line } from './line.ts';
import { ramp } from './ramp.ts';

/** Every way of saying what is put into a channel, by the name it has in recipes. */
export const VALUE_KINDS = { constant, ramp, line };
export type ValueName = keyof typeof VALUE_KINDS;
