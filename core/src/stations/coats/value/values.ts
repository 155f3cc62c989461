import { constant } from './constant.ts';
import { light } from './light.ts';
import { line } from './line.ts';
import { painted } from './painted.ts';
import { picture } from './picture.ts';
import { ramp } from './ramp.ts';
import { styled } from './styled.ts';
import { tile } from './tile.ts';
import { tone } from './tone.ts';
import { wetness } from './wetness.ts';

/** Every way of saying what is put into a channel, by the name it has in recipes. */
export const VALUE_KINDS = { constant, ramp, line, picture, tile, wetness, light, tone, painted, styled };
export type ValueName = keyof typeof VALUE_KINDS;
