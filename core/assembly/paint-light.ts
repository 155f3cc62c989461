/** Lightness of ink (OKLab), and how much of the colour under it is left. */
const INK: f32 = 0.14;
const UNDER_INK: f32 = 0.25;
/** How far hollows are cooled at most: of a grey, and of what is yellow in a colour. */
const COOLEST: f32 = 0.004;
const COOLED: f32 = 0.6;

function times(v: v128, by: f32): v128 {
  return f32x4.mul(v, f32x4.splat(by));
}

function plus(v: v128, more: f32): v128 {
  return f32x4.add(v, f32x4.splat(more));
}

/** 0 up to `low`, 1 at 1 / `by` above it, smooth in between. */
function smoothStep(low: f32, by: f32, value: v128): v128 {
  const t = f32x4.pmin(f32x4.splat(1), f32x4.pmax(f32x4.splat(0), times(plus(value, -low), by)));
  return f32x4.mul(f32x4.mul(t, t), f32x4.sub(f32x4.splat(3), f32x4.add(t, t)));
}

function squashed(v: v128): v128 {
  return f32x4.div(v, f32x4.sqrt(plus(f32x4.mul(v, v), 1)));
}

/** One of a and b spread from a middle. */
function spread(own: v128, middle: f32, gain: f32): v128 {
  return plus(times(plus(own, -middle), gain), middle);
}

/**
 * Paints light on the first three of eight planes (`room` bytes apart) by the others, in place: see the reference. Gives the sum of
 * the changes of the first `count` values.
 */
export function paintLight(
  planes: usize,
  room: usize,
  count: i32,
  strength: f32,
  ink: f32,
  byRidge: f32,
  ofThin: f32,
  ofWide: f32,
  lightX: f32,
  lightY: f32,
  middleA: f32,
  middleB: f32,
  gain: f32,
): f64 {
  let changed: f64 = 0;
  let some = f32x4.splat(0);
  for (let i = 0; i < count; i += 4) {
    const at = planes + ((<usize>i) << 2);
    const own = v128.load(at);
    const slope = f32x4.add(
      times(v128.load(at + 6 * room), -lightX),
      times(v128.load(at + 7 * room), -lightY),
    );
    const t = times(v128.load(at + 4 * room), ofThin);
    const facing = plus(times(squashed(times(slope, 1.5)), 0.45), 0.55);
    const rim = f32x4.mul(smoothStep(0.35, 1.0 / 0.95, t), facing);
    const hollow = smoothStep(0.3, 1.0 / 1.1, f32x4.neg(t));
    const shade = smoothStep(0.1, 1.0 / 1.5, times(v128.load(at + 5 * room), -ofWide));
    const ridges = plus(times(v128.load(at + 3 * room), <f32>1.6 * byRidge), 0.9);
    const caught = f32x4.pmin(f32x4.splat(1.3), f32x4.pmax(f32x4.splat(0.35), ridges));
    const bright = times(f32x4.sub(f32x4.splat(1.15), own), <f32>(0.12 / 0.6) * strength);
    const up = f32x4.mul(f32x4.mul(rim, caught), bright);
    const dark = times(plus(own, 0.25), <f32>(1.0 / 0.85) * strength);
    const down = f32x4.mul(f32x4.add(times(hollow, 0.13), times(shade, 0.075)), dark);
    const change = f32x4.add(f32x4.sub(up, down), times(squashed(slope), <f32>0.035 * strength));
    const tint = f32x4.pmax(f32x4.splat(-0.14), f32x4.pmin(f32x4.splat(0.14), change));
    const isDarker = f32x4.lt(change, f32x4.splat(0));
    const drawn = times(smoothStep(0.35, 1.0 / 0.65, hollow), ink);
    const rich = v128.bitselect(plus(times(tint, -0.9), 1), f32x4.splat(1), isDarker);
    const left = f32x4.mul(rich, plus(times(drawn, -0.6), 1));
    const lit = f32x4.add(own, change);
    const inked = f32x4.sub(plus(times(own, UNDER_INK), INK), lit);
    v128.store(at, f32x4.add(lit, f32x4.mul(inked, drawn)));
    const a = at + room;
    const b = a + room;
    v128.store(a, f32x4.mul(f32x4.add(spread(v128.load(a), middleA, gain), times(tint, 0.03)), left));
    const spreadB = spread(v128.load(b), middleB, gain);
    // What is nearly grey must not turn blue.
    const most = plus(times(f32x4.pmax(f32x4.splat(0), spreadB), -COOLED), -COOLEST);
    const cooled = f32x4.pmax(times(tint, 0.13), most);
    const warm = v128.bitselect(times(tint, 0.16), cooled, f32x4.gt(tint, f32x4.splat(0)));
    v128.store(b, f32x4.mul(f32x4.add(spreadB, warm), left));
    let size = f32x4.abs(change);
    if (i + 3 >= count) size = v128.and(size, i32x4.lt_s(i32x4(0, 1, 2, 3), i32x4.splat(count - i)));
    some = f32x4.add(some, size);
    // Small sums, so that 32 bits lose nothing of them.
    if ((i & 1023) === 1020 || i + 4 >= count) {
      changed += <f64>f32x4.extract_lane(some, 0) + <f64>f32x4.extract_lane(some, 1);
      changed += <f64>f32x4.extract_lane(some, 2) + <f64>f32x4.extract_lane(some, 3);
      some = f32x4.splat(0);
    }
  }
  return changed;
}
