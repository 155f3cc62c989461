import { encoded4 } from './encode-srgb';

/** The codes of the rules, as their files in TypeScript have them; 0 is normal. */
const MULTIPLY = 1;
const SCREEN = 2;
const OVERLAY = 3;
const DARKEN = 4;
const LIGHTEN = 5;
const DODGE = 6;
const BURN = 7;
const HARD_LIGHT = 8;
const SOFT_LIGHT = 9;
const DIFFERENCE = 10;
const EXCLUSION = 11;
const ADD = 12;
const SUBTRACT = 13;
const DIVIDE = 14;
const HUE = 15;
const SATURATION = 16;
const COLOR = 17;

const ENCODED = 1;
const ONE_ABOVE = 2;
const ONE_COVER = 4;

/**
 * Linear values of sRGB-encoded ones 0..1 (IEC 61966-2-1): ((x + 0.055) / 1.055)^2.4 as a polynomial, interpolated at Chebyshev's
 * nodes of what lies above the straight part, off by 3·10⁻⁷ at most.
 */
function decoded4(x: v128): v128 {
  let curved = f32x4.splat(<f32>0.09360212087631226);
  curved = f32x4.add(f32x4.mul(curved, x), f32x4.splat(<f32>-0.507612407207489));
  curved = f32x4.add(f32x4.mul(curved, x), f32x4.splat(<f32>1.2081973552703857));
  curved = f32x4.add(f32x4.mul(curved, x), f32x4.splat(<f32>-1.6793756484985352));
  curved = f32x4.add(f32x4.mul(curved, x), f32x4.splat(<f32>1.5557279586791992));
  curved = f32x4.add(f32x4.mul(curved, x), f32x4.splat(<f32>-1.1022281646728516));
  curved = f32x4.add(f32x4.mul(curved, x), f32x4.splat(<f32>0.9165587425231934));
  curved = f32x4.add(f32x4.mul(curved, x), f32x4.splat(<f32>0.4785709083080292));
  curved = f32x4.add(f32x4.mul(curved, x), f32x4.splat(<f32>0.03571375086903572));
  curved = f32x4.add(f32x4.mul(curved, x), f32x4.splat(<f32>0.0008455452625639737));
  const straight = f32x4.mul(x, f32x4.splat(<f32>(1.0 / 12.92)));
  return v128.bitselect(straight, curved, f32x4.le(x, f32x4.splat(<f32>0.04045)));
}

/** Held to 0..1. */
function held(x: v128): v128 {
  return f32x4.pmax(f32x4.splat(0), f32x4.pmin(x, f32x4.splat(1)));
}

/** Multiplied where what decides is dark, screened where it is bright. */
function hardLight4(b: v128, a: v128): v128 {
  const two = f32x4.add(a, a);
  const product = f32x4.mul(b, two);
  const light = f32x4.sub(two, f32x4.splat(1));
  const screen = f32x4.sub(f32x4.add(b, light), f32x4.mul(b, light));
  return v128.bitselect(product, screen, f32x4.le(a, f32x4.splat(0.5)));
}

function softLight4(b: v128, a: v128): v128 {
  const one = f32x4.splat(1);
  const twice = f32x4.add(a, a);
  const dark = f32x4.sub(b, f32x4.mul(f32x4.mul(f32x4.sub(one, twice), b), f32x4.sub(one, b)));
  let low = f32x4.sub(f32x4.mul(f32x4.splat(16), b), f32x4.splat(12));
  low = f32x4.add(f32x4.mul(low, b), f32x4.splat(4));
  low = f32x4.mul(low, b);
  const d = v128.bitselect(low, f32x4.sqrt(b), f32x4.le(b, f32x4.splat(0.25)));
  const bright = f32x4.add(b, f32x4.mul(f32x4.sub(twice, one), f32x4.sub(d, b)));
  return v128.bitselect(dark, bright, f32x4.le(a, f32x4.splat(0.5)));
}

/** Blended values of a rule that treats each channel alone. */
function separable4(code: i32, b: v128, a: v128): v128 {
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  switch (code) {
    case MULTIPLY:
      return f32x4.mul(b, a);
    case SCREEN:
      return f32x4.sub(f32x4.add(b, a), f32x4.mul(b, a));
    case OVERLAY:
      return hardLight4(a, b);
    case DARKEN:
      return f32x4.pmin(b, a);
    case LIGHTEN:
      return f32x4.pmax(b, a);
    case DODGE: {
      const value = v128.bitselect(one, f32x4.div(b, f32x4.sub(one, a)), f32x4.ge(a, one));
      return v128.bitselect(zero, value, f32x4.eq(b, zero));
    }
    case BURN: {
      const value = f32x4.sub(one, f32x4.pmin(one, f32x4.div(f32x4.sub(one, b), a)));
      return v128.bitselect(one, v128.bitselect(zero, value, f32x4.le(a, zero)), f32x4.ge(b, one));
    }
    case HARD_LIGHT:
      return hardLight4(b, a);
    case SOFT_LIGHT:
      return softLight4(b, a);
    case DIFFERENCE:
      return f32x4.abs(f32x4.sub(b, a));
    case EXCLUSION:
      return f32x4.sub(f32x4.add(b, a), f32x4.mul(f32x4.splat(2), f32x4.mul(b, a)));
    case ADD:
      return f32x4.add(b, a);
    case SUBTRACT:
      return f32x4.sub(b, a);
    case DIVIDE: {
      const none = v128.bitselect(zero, one, f32x4.le(b, zero));
      return v128.bitselect(none, f32x4.div(b, a), f32x4.le(a, zero));
    }
    default:
      return a;
  }
}

let red: v128 = f32x4.splat(0);
let green: v128 = f32x4.splat(0);
let blue: v128 = f32x4.splat(0);

function lum(r: v128, g: v128, b: v128): v128 {
  const two = f32x4.add(f32x4.mul(r, f32x4.splat(<f32>0.3)), f32x4.mul(g, f32x4.splat(<f32>0.59)));
  return f32x4.add(two, f32x4.mul(b, f32x4.splat(<f32>0.11)));
}

function least(r: v128, g: v128, b: v128): v128 {
  return f32x4.pmin(r, f32x4.pmin(g, b));
}

function most(r: v128, g: v128, b: v128): v128 {
  return f32x4.pmax(r, f32x4.pmax(g, b));
}

/** One channel brought back to 0..1 along the line to the grey of its colour. */
function clipped(c: v128, grey: v128, low: v128, high: v128): v128 {
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const raised = f32x4.add(grey, f32x4.div(f32x4.mul(f32x4.sub(c, grey), grey), f32x4.sub(grey, low)));
  const value = v128.bitselect(raised, c, f32x4.lt(low, zero));
  const room = f32x4.mul(f32x4.sub(value, grey), f32x4.sub(one, grey));
  const lowered = f32x4.add(grey, f32x4.div(room, f32x4.sub(high, grey)));
  return v128.bitselect(lowered, value, f32x4.gt(high, one));
}

/** Gives the colour at hand another brightness. */
function setLum(wanted: v128): void {
  const more = f32x4.sub(wanted, lum(red, green, blue));
  red = f32x4.add(red, more);
  green = f32x4.add(green, more);
  blue = f32x4.add(blue, more);
  const grey = lum(red, green, blue);
  const low = least(red, green, blue);
  const high = most(red, green, blue);
  red = clipped(red, grey, low, high);
  green = clipped(green, grey, low, high);
  blue = clipped(blue, grey, low, high);
}

/** Gives the colour at hand another saturation. */
function setSat(wanted: v128): void {
  const zero = f32x4.splat(0);
  const low = least(red, green, blue);
  const range = f32x4.sub(most(red, green, blue), low);
  const scale = v128.bitselect(f32x4.div(wanted, range), zero, f32x4.gt(range, zero));
  red = f32x4.mul(f32x4.sub(red, low), scale);
  green = f32x4.mul(f32x4.sub(green, low), scale);
  blue = f32x4.mul(f32x4.sub(blue, low), scale);
}

/** Blends the colours below and above by a rule of whole colours, into the colour at hand. */
function colours4(code: i32, b0: v128, b1: v128, b2: v128, a0: v128, a1: v128, a2: v128): void {
  const isOfBelow = code !== HUE && code !== COLOR;
  red = isOfBelow ? b0 : a0;
  green = isOfBelow ? b1 : a1;
  blue = isOfBelow ? b2 : a2;
  if (code === HUE) setSat(f32x4.sub(most(b0, b1, b2), least(b0, b1, b2)));
  if (code === SATURATION) setSat(f32x4.sub(most(a0, a1, a2), least(a0, a1, a2)));
  setLum(code <= COLOR ? lum(b0, b1, b2) : lum(a0, a1, a2));
}

/** Bytes of a plane that go through step by step: what a step leaves stays near the processor. */
const PART: usize = 2048;

/** The value below, as much of the blended one as is covered. */
function covered(below: v128, blended: v128, share: v128): v128 {
  return f32x4.add(below, f32x4.mul(share, f32x4.sub(held(blended), below)));
}

/** Whether nothing of a part is covered, so that it stays as it is. */
function isBare(cover: usize, bytes: usize): bool {
  let found = v128.splat<i32>(0);
  for (let at: usize = 0; at < bytes; at += 16) {
    found = v128.or(found, f32x4.gt(v128.load(cover + at), f32x4.splat(0)));
  }
  return !v128.any_true(found);
}

/** A part blended by a rule that treats each channel alone. The step of what has one vector for all is 0. */
function separate(
  code: i32,
  below: usize,
  above: usize,
  cover: usize,
  out: usize,
  bytes: usize,
  by: usize,
  per: usize,
): void {
  for (let at: usize = 0; at < bytes; at += 16) {
    const b = v128.load(below + at);
    v128.store(out + at, covered(b, separable4(code, b, v128.load(above)), v128.load(cover)));
    above += by;
    cover += per;
  }
}

/** A part of three planes blended by a rule of whole colours. */
function together(
  code: i32,
  below: usize,
  apart: usize,
  above: usize,
  room: usize,
  cover: usize,
  out: usize,
  beside: usize,
  bytes: usize,
  by: usize,
  per: usize,
): void {
  for (let at: usize = 0; at < bytes; at += 16) {
    const b0 = v128.load(below + at);
    const b1 = v128.load(below + apart + at);
    const b2 = v128.load(below + 2 * apart + at);
    colours4(code, b0, b1, b2, v128.load(above), v128.load(above + room), v128.load(above + 2 * room));
    const share = v128.load(cover);
    v128.store(out + at, covered(b0, red, share));
    v128.store(out + beside + at, covered(b1, green, share));
    v128.store(out + 2 * beside + at, covered(b2, blue, share));
    above += by;
    cover += per;
  }
}

/** Values encoded into another place, or in their own. */
function encodedInto(from: usize, to: usize, bytes: usize): void {
  for (let at: usize = 0; at < bytes; at += 16) v128.store(to + at, encoded4(v128.load(from + at)));
}

/** A part put back decoded where it is covered. */
function putDecoded(values: usize, plane: usize, cover: usize, bytes: usize, per: usize): void {
  for (let at: usize = 0; at < bytes; at += 16) {
    const isCovered = f32x4.gt(v128.load(cover), f32x4.splat(0));
    const linear = v128.load(plane + at);
    v128.store(plane + at, v128.bitselect(decoded4(v128.load(values + at)), linear, isCovered));
    cover += per;
  }
}

/**
 * Blends one plane or three in place; `room` bytes are from one plane to the next, `bytes` of each are blended. What lies above
 * and the cover are planes, or by their flags one vector for all. `spare` is room for six parts: each goes through encoding,
 * blending and decoding one after the other, as steps this short overlap in the processor.
 */
export function blendPlanes(
  below: usize,
  above: usize,
  cover: usize,
  room: usize,
  bytes: usize,
  planes: i32,
  code: i32,
  flags: i32,
  spare: usize,
): void {
  const isEncoded: bool = (flags & ENCODED) !== 0;
  const by: usize = (flags & ONE_ABOVE) !== 0 ? 0 : 16;
  const per: usize = (flags & ONE_COVER) !== 0 ? 0 : 16;
  const count: usize = planes;
  if (isEncoded && by === 0) {
    for (let c: usize = 0; c < count; c++) encodedInto(above + c * room, above + c * room, 16);
  }
  for (let from: usize = 0; from < bytes; from += PART) {
    const length = min(PART, bytes - from);
    const share = per === 0 ? cover : cover + from;
    if (isBare(share, per === 0 ? 16 : length)) continue;
    const over = by === 0 ? above : above + from;
    let under = below + from;
    let made = under;
    let apart = room;
    if (isEncoded) {
      for (let c: usize = 0; c < count; c++) {
        encodedInto(under + c * room, spare + c * PART, length);
        // What lies above is encoded where it is.
        if (by !== 0) encodedInto(over + c * room, over + c * room, length);
      }
      under = spare;
      made = spare + 3 * PART;
      apart = PART;
    }
    if (code >= HUE) together(code, under, apart, over, room, share, made, apart, length, by, per);
    else {
      for (let c: usize = 0; c < count; c++) {
        separate(code, under + c * apart, over + c * room, share, made + c * apart, length, by, per);
      }
    }
    if (!isEncoded) continue;
    for (let c: usize = 0; c < count; c++) {
      putDecoded(made + c * PART, below + c * room + from, share, length, per);
    }
  }
}
