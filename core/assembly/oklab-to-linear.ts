import { cube, mixed } from './oklab';

let red: v128 = f32x4.splat(0);
let green: v128 = f32x4.splat(0);
let blue: v128 = f32x4.splat(0);

/** Linear RGB of four colours in OKLab (Ottosson 2020). */
function colours(L: v128, a: v128, b: v128): void {
  const l = cube(mixed(L, a, b, 1, <f32>0.3963377774, <f32>0.2158037573));
  const m = cube(mixed(L, a, b, 1, <f32>-0.1055613458, <f32>-0.0638541728));
  const s = cube(mixed(L, a, b, 1, <f32>-0.0894841775, <f32>-1.291485548));
  red = mixed(l, m, s, <f32>4.0767416621, <f32>-3.3077115913, <f32>0.2309699292);
  green = mixed(l, m, s, <f32>-1.2684380046, <f32>2.6097574011, <f32>-0.3413193965);
  blue = mixed(l, m, s, <f32>-0.0041960863, <f32>-0.7034186147, <f32>1.707614701);
}

/** Which of the four colours screens have. */
function areInside(slack: f32): v128 {
  const least = f32x4.pmin(red, f32x4.pmin(green, blue));
  const most = f32x4.pmax(red, f32x4.pmax(green, blue));
  return v128.and(f32x4.ge(least, f32x4.splat(-slack)), f32x4.le(most, f32x4.splat(1 + slack)));
}

function held(v: v128): v128 {
  return f32x4.pmax(f32x4.splat(0), f32x4.pmin(f32x4.splat(1), v));
}

/**
 * Three planes of OKLab, one behind the other, become linear RGB 0..1. What no screen has loses richness by as many halvings as
 * `rounds` says.
 */
export function oklabToRgb(planes: usize, plane: usize, slack: f32, rounds: i32): void {
  for (let at = planes; at < planes + plane; at += 16) {
    const L = held(v128.load(at));
    const a = v128.load(at + plane);
    const b = v128.load(at + 2 * plane);
    colours(L, a, b);
    const isInside = areInside(slack);
    if (!i32x4.all_true(isInside)) {
      let low = f32x4.splat(0);
      let high = f32x4.splat(1);
      for (let k = 0; k < rounds; k++) {
        const middle = f32x4.mul(f32x4.splat(0.5), f32x4.add(low, high));
        colours(L, f32x4.mul(a, middle), f32x4.mul(b, middle));
        const has = areInside(slack);
        low = v128.bitselect(middle, low, has);
        high = v128.bitselect(high, middle, has);
      }
      const share = v128.bitselect(f32x4.splat(1), low, isInside);
      colours(L, f32x4.mul(a, share), f32x4.mul(b, share));
    }
    v128.store(at, held(red));
    v128.store(at + plane, held(green));
    v128.store(at + 2 * plane, held(blue));
  }
}
