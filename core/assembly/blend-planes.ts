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

/** The value below, as much of the blended one as is covered in it, decoded where that is asked for. */
function covered(linear: v128, below: v128, blended: v128, share: v128, isEncoded: bool): v128 {
  const value = f32x4.add(below, f32x4.mul(share, f32x4.sub(held(blended), below)));
  if (!isEncoded) return value;
  return v128.bitselect(decoded4(value), linear, f32x4.gt(share, f32x4.splat(0)));
}

/** Whether nothing of four pixels is covered, so that they stay as they are. */
function isBare(share: v128): bool {
  return !v128.any_true(f32x4.gt(share, f32x4.splat(0)));
}

/**
 * Blends one plane or three in place; `room` bytes are from one plane to the next, `bytes` of each are blended. What lies above
 * and the cover are planes, or by their flags one vector for all.
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
): void {
  const isEncoded: bool = (flags & ENCODED) !== 0;
  const isOneAbove: bool = (flags & ONE_ABOVE) !== 0;
  const isOneCover: bool = (flags & ONE_COVER) !== 0;
  if (isEncoded) {
    // What lies above is encoded where it is.
    const count: usize = isOneAbove ? 16 : bytes;
    for (let c: usize = 0; c < <usize>planes; c++) {
      for (let at = above + c * room; at < above + c * room + count; at += 16) {
        v128.store(at, encoded4(v128.load(at)));
      }
    }
  }
  if (code < HUE) {
    for (let c: usize = 0; c < <usize>planes; c++) {
      const plane = below + c * room;
      const over = above + c * room;
      for (let at: usize = 0; at < bytes; at += 16) {
        const share = v128.load(isOneCover ? cover : cover + at);
        if (isBare(share)) continue;
        const linear = v128.load(plane + at);
        const a = v128.load(isOneAbove ? over : over + at);
        const b = isEncoded ? encoded4(linear) : linear;
        v128.store(plane + at, covered(linear, b, separable4(code, b, a), share, isEncoded));
      }
    }
    return;
  }
  for (let at: usize = 0; at < bytes; at += 16) {
    const share = v128.load(isOneCover ? cover : cover + at);
    if (isBare(share)) continue;
    const one = below + at;
    const over = isOneAbove ? above : above + at;
    const l0 = v128.load(one);
    const l1 = v128.load(one + room);
    const l2 = v128.load(one + 2 * room);
    const b0 = isEncoded ? encoded4(l0) : l0;
    const b1 = isEncoded ? encoded4(l1) : l1;
    const b2 = isEncoded ? encoded4(l2) : l2;
    colours4(code, b0, b1, b2, v128.load(over), v128.load(over + room), v128.load(over + 2 * room));
    v128.store(one, covered(l0, b0, red, share, isEncoded));
    v128.store(one + room, covered(l1, b1, green, share, isEncoded));
    v128.store(one + 2 * room, covered(l2, b2, blue, share, isEncoded));
  }
}
