const BILLOWED = 1;
const RIDGED = 2;
const CELLULAR = 3;

/** Two values of noise as 0..1. */
function bent2(value: v128, kind: i32, whole: v128): v128 {
  const one = f64x2.splat(1);
  if (kind === CELLULAR) return f64x2.pmin(one, f64x2.div(value, whole));
  if (kind === BILLOWED) return f64x2.abs(value);
  if (kind === RIDGED) {
    const ridge = f64x2.sub(one, f64x2.abs(value));
    return f64x2.mul(ridge, ridge);
  }
  return f64x2.add(f64x2.splat(0.5), f64x2.mul(f64x2.splat(0.5), value));
}

/** Adds values of noise (64 bits), bent and times a weight, to a sum (32 bits). Both may be written a vector beyond their end. */
export function addLayer(values: usize, sum: usize, count: i32, weight: f64, kind: i32, whole: f64): void {
  const by = f64x2.splat(weight);
  const most = f64x2.splat(whole);
  const end = sum + ((<usize>count) << 2);
  for (; sum < end; sum += 8) {
    const before = f64x2.promote_low_f32x4(v128.load64_zero(sum));
    const after = f64x2.add(before, f64x2.mul(by, bent2(v128.load(values), kind, most)));
    v128.store64_lane(sum, f32x4.demote_f64x2_zero(after), 0);
    values += 16;
  }
}
