function between(a: v128, b: v128, share: v128): v128 {
  return f32x4.add(a, f32x4.mul(share, f32x4.sub(b, a)));
}

function placeOf(value: f32, low: f32, scale: f32, most: f32): f32 {
  return max<f32>(0, min<f32>(most, (value - low) * scale));
}

/**
 * Adds to the colours of three planes (`room` bytes apart) what a table of vectors has for them, read between its places, into
 * pixels of four values. The table has `steps` + 1 places on each axis, the third axis first in memory.
 */
export function drawTo(
  planes: usize,
  room: usize,
  count: i32,
  out: usize,
  table: usize,
  steps: i32,
  lowL: f32,
  lowA: f32,
  lowB: f32,
  scaleL: f32,
  scaleA: f32,
  scaleB: f32,
): void {
  const line: usize = (<usize>(steps + 1)) << 4;
  const layer: usize = <usize>(steps + 1) * line;
  const most: f32 = <f32>steps - <f32>1e-3;
  for (let i = 0; i < count; i++) {
    const at = planes + ((<usize>i) << 2);
    const L = load<f32>(at);
    const a = load<f32>(at + room);
    const b = load<f32>(at + 2 * room);
    const x = placeOf(L, lowL, scaleL, most);
    const y = placeOf(a, lowA, scaleA, most);
    const z = placeOf(b, lowB, scaleB, most);
    const cell = i32x4.trunc_sat_f32x4_s(f32x4(x, y, z, 0));
    const px = i32x4.extract_lane(cell, 0);
    const py = i32x4.extract_lane(cell, 1);
    const pz = i32x4.extract_lane(cell, 2);
    const u = f32x4.splat(x - <f32>px);
    const v = f32x4.splat(y - <f32>py);
    const w = f32x4.splat(z - <f32>pz);
    const here = table + <usize>px * layer + <usize>py * line + ((<usize>pz) << 4);
    const there = here + layer;
    const p = between(v128.load(here), v128.load(here, 16), w);
    const q = between(v128.load(here + line), v128.load(here + line, 16), w);
    const r = between(v128.load(there), v128.load(there, 16), w);
    const t = between(v128.load(there + line), v128.load(there + line, 16), w);
    const shift = between(between(p, q, v), between(r, t, v), u);
    v128.store(out + ((<usize>i) << 4), f32x4.add(f32x4(L, a, b, 0), shift));
  }
}
