import { exp2x4, exp4, log2x4 } from './curves';
import { coneL, coneM, coneS, cube, labA, labB, labL, mixed } from './oklab';

const WR: f32 = 0.2126;
const WG: f32 = 0.7152;
const WB: f32 = 0.0722;

/** What a tone does, as the page of 32-bit floats that is handed in lays it out. */
function given(tone: usize, k: usize): v128 {
  return v128.load32_splat(tone + (k << 2));
}

const GAIN: usize = 0;
const CONTRAST: usize = 1;
const PIVOT: usize = 2;
const LOW: usize = 3;
const TOE: usize = 4;
const SHOULDER: usize = 5;
const HIGH: usize = 6;
const MOST: usize = 7;
/** The turn of a and b, and what is added to them for each unit of L. */
const COS: usize = 8;
const SIN: usize = 9;
const ADD_A: usize = 10;
const ADD_B: usize = 11;

/** Luminance through gain, contrast and the soft hold. */
function aims(y: v128, tone: usize, bends: bool, holds: bool): v128 {
  let v = f32x4.mul(y, given(tone, GAIN));
  if (bends) {
    const pivot = given(tone, PIVOT);
    const least = f32x4.max(f32x4.div(v, pivot), f32x4.splat(<f32>1e-30));
    const bent = f32x4.mul(pivot, exp2x4(f32x4.mul(log2x4(least), given(tone, CONTRAST))));
    v = v128.bitselect(v, bent, f32x4.le(y, f32x4.splat(0)));
  }
  if (!holds) return v;
  const toe = given(tone, TOE);
  const shoulder = given(tone, SHOULDER);
  const above = f32x4.gt(v, shoulder);
  const below = f32x4.lt(v, toe);
  // Most of a tile lies between the bends, where nothing is held.
  if (!v128.any_true(v128.or(above, below))) return v;
  const top = f32x4.sub(given(tone, HIGH), shoulder);
  const room = f32x4.sub(toe, given(tone, LOW));
  const one = f32x4.splat(1);
  const held = f32x4.add(
    shoulder,
    f32x4.mul(top, f32x4.sub(one, exp4(f32x4.div(f32x4.sub(shoulder, v), top)))),
  );
  const raised = f32x4.sub(toe, f32x4.mul(room, f32x4.sub(one, exp4(f32x4.div(f32x4.sub(v, toe), room)))));
  return v128.bitselect(held, v128.bitselect(raised, v, below), above);
}

/**
 * Linear RGB through a tone and a change of colour with luminance held. Three planes of `from` and of `to`, each `plane`
 * bytes; `cover` is 0 where all is replaced. Bits of `left` mark pixels whose colour leaves 0..1: those of `to` stay as they are.
 */
export function toneBlock(
  from: usize,
  to: usize,
  plane: usize,
  cover: usize,
  left: usize,
  tone: usize,
  bends: bool,
  holds: bool,
  recolours: bool,
): void {
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const most = given(tone, MOST);
  for (let at: usize = 0; at < plane; at += 16) {
    let r = v128.load(from + at);
    let g = v128.load(from + plane + at);
    let b = v128.load(from + 2 * plane + at);
    const y = mixed(r, g, b, WR, WG, WB);
    const aim = aims(y, tone, bends, holds);
    let now = y;
    if (recolours) {
      const l = coneL(r, g, b);
      const m = coneM(r, g, b);
      const s = coneS(r, g, b);
      const L = labL(l, m, s);
      const a = labA(l, m, s);
      const bb = labB(l, m, s);
      const cos = given(tone, COS);
      const sin = given(tone, SIN);
      const A = f32x4.add(f32x4.sub(f32x4.mul(a, cos), f32x4.mul(bb, sin)), f32x4.mul(L, given(tone, ADD_A)));
      const B = f32x4.add(f32x4.add(f32x4.mul(a, sin), f32x4.mul(bb, cos)), f32x4.mul(L, given(tone, ADD_B)));
      const l3 = cube(mixed(L, A, B, 1, <f32>0.3963377774, <f32>0.2158037573));
      const m3 = cube(mixed(L, A, B, 1, <f32>-0.1055613458, <f32>-0.0638541728));
      const s3 = cube(mixed(L, A, B, 1, <f32>-0.0894841775, <f32>-1.291485548));
      r = mixed(l3, m3, s3, <f32>4.0767416621, <f32>-3.3077115913, <f32>0.2309699292);
      g = mixed(l3, m3, s3, <f32>-1.2684380046, <f32>2.6097574011, <f32>-0.3413193965);
      b = mixed(l3, m3, s3, <f32>-0.0041960863, <f32>-0.7034186147, <f32>1.707614701);
      now = mixed(r, g, b, WR, WG, WB);
    }
    const sound = f32x4.gt(now, f32x4.splat(<f32>1e-9));
    const ratio = v128.and(f32x4.div(aim, now), sound);
    r = f32x4.mul(r, ratio);
    g = f32x4.mul(g, ratio);
    b = f32x4.mul(b, ratio);
    const least = f32x4.min(f32x4.min(r, g), b);
    const largest = f32x4.max(f32x4.max(r, g), b);
    let out = v128.or(f32x4.lt(least, zero), f32x4.gt(largest, one));
    out = v128.or(out, v128.or(f32x4.eq(ratio, zero), f32x4.gt(ratio, most)));
    const uncovered = cover ? f32x4.eq(v128.load(cover + at), zero) : zero;
    out = v128.andnot(out, uncovered);
    store<u8>(left + (at >> 4), <u8>i32x4.bitmask(out));
    const stays = v128.or(out, uncovered);
    for (let c: usize = 0; c < 3; c++) {
      const value = c === 0 ? r : c === 1 ? g : b;
      const place = to + c * plane + at;
      const before = v128.load(place);
      const after = cover
        ? f32x4.add(before, f32x4.mul(v128.load(cover + at), f32x4.sub(value, before)))
        : value;
      v128.store(place, v128.bitselect(before, after, stays));
    }
  }
}
