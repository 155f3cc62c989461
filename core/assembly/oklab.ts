import { cbrt4 } from './curves';

export function mixed(a: v128, b: v128, c: v128, x: f32, y: f32, z: f32): v128 {
  const two = f32x4.add(f32x4.mul(a, f32x4.splat(x)), f32x4.mul(b, f32x4.splat(y)));
  return f32x4.add(two, f32x4.mul(c, f32x4.splat(z)));
}

export function cube(v: v128): v128 {
  return f32x4.mul(f32x4.mul(v, v), v);
}

/** Cone responses of four linear colours, their cube roots taken (Ottosson 2020). */
export function coneL(r: v128, g: v128, b: v128): v128 {
  return cbrt4(mixed(r, g, b, <f32>0.4122214708, <f32>0.5363325363, <f32>0.0514459929));
}

export function coneM(r: v128, g: v128, b: v128): v128 {
  return cbrt4(mixed(r, g, b, <f32>0.2119034982, <f32>0.6806995451, <f32>0.1073969566));
}

export function coneS(r: v128, g: v128, b: v128): v128 {
  return cbrt4(mixed(r, g, b, <f32>0.0883024619, <f32>0.2817188376, <f32>0.6299787005));
}

export function labL(l: v128, m: v128, s: v128): v128 {
  return mixed(l, m, s, <f32>0.2104542553, <f32>0.793617785, <f32>-0.0040720468);
}

export function labA(l: v128, m: v128, s: v128): v128 {
  return mixed(l, m, s, <f32>1.9779984951, <f32>-2.428592205, <f32>0.4505937099);
}

export function labB(l: v128, m: v128, s: v128): v128 {
  return mixed(l, m, s, <f32>0.0259040371, <f32>0.7827717662, <f32>-0.808675766);
}

/** Three planes of linear RGB, one behind the other, become L, a and b. */
export function toOklab(planes: usize, plane: usize): void {
  for (let at = planes; at < planes + plane; at += 16) {
    const r = v128.load(at);
    const g = v128.load(at + plane);
    const b = v128.load(at + 2 * plane);
    const l = coneL(r, g, b);
    const m = coneM(r, g, b);
    const s = coneS(r, g, b);
    v128.store(at, labL(l, m, s));
    v128.store(at + plane, labA(l, m, s));
    v128.store(at + 2 * plane, labB(l, m, s));
  }
}
