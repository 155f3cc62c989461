/** Bytes of an entry of the heap: a cost, a node and its row. */
const ENTRY: usize = 16;
const FOUR: i32 = 4;
const MORE_PAGES: i32 = 64;
/** Bytes that make a 64-bit float larger than any cost. */
const FAR: u8 = 0x7f;

let heap: usize = 0;
let entries: i32 = 0;
let room: usize = 0;

function entry(i: i32): usize {
  return heap + <usize>i * ENTRY;
}

function push(node: i32, y: i32, cost: f64): void {
  if (entry(entries + 1) > room) {
    memory.grow(MORE_PAGES);
    room = (<usize>memory.size()) << 16;
  }
  let i = entries++;
  while (i > 0) {
    const up = (i - 1) >> 2;
    const above = entry(up);
    if (load<f64>(above) <= cost) break;
    v128.store(entry(i), v128.load(above));
    i = up;
  }
  store<f64>(entry(i), cost);
  store<i32>(entry(i) + 8, node);
  store<i32>(entry(i) + 12, y);
}

/** Takes the cheapest entry away, which stands first. */
function pop(): void {
  const n = --entries;
  const last = v128.load(entry(n));
  const cost = load<f64>(entry(n));
  let i = 0;
  for (;;) {
    let child = FOUR * i + 1;
    if (child >= n) break;
    const end = min(child + FOUR, n);
    let least = load<f64>(entry(child));
    for (let k = child + 1; k < end; k++) {
      const other = load<f64>(entry(k));
      if (other < least) {
        child = k;
        least = other;
      }
    }
    if (least >= cost) break;
    v128.store(entry(i), v128.load(entry(child)));
    i = child;
  }
  v128.store(entry(i), last);
}

function relax(next: i32, y: i32, total: f64, node: i32, costs: usize, from: usize, allowed: usize): void {
  const at = costs + ((<usize>next) << 3);
  if (total >= load<f64>(at)) return;
  if (allowed && !load<u8>(allowed + <usize>next)) return;
  store<f64>(at, total);
  store<i32>(from + ((<usize>next) << 2), node);
  push(next, y, total);
}

function price(costs: usize, at: i32): f64 {
  return <f64>load<f32>(costs + ((<usize>at) << 2));
}

/**
 * Dijkstra's search over the corners of a strip, from the columns `starts` of its first row until a corner of row `rows`
 * is settled (in column `to`, or any where that is below 0): that corner, or −1. `costs` and `from` are written; the heap
 * grows from `end` of what is in use. `allowed` is 0 where every corner is.
 */
export function searchCut(
  upright: usize,
  level: usize,
  costs: usize,
  from: usize,
  allowed: usize,
  starts: usize,
  startCount: i32,
  rows: i32,
  to: i32,
  width: i32,
  length: i32,
  low: i32,
  high: i32,
  end: usize,
): i32 {
  heap = end;
  entries = 0;
  room = (<usize>memory.size()) << 16;
  const across = width + 1;
  const nodes = across * (rows + 1);
  memory.fill(costs, FAR, (<usize>nodes) << 3);
  for (let k = 0; k < startCount; k++) {
    const column = load<i32>(starts + ((<usize>k) << 2));
    store<f64>(costs + ((<usize>column) << 3), 0);
    store<i32>(from + ((<usize>column) << 2), -1);
    push(column, 0, 0);
  }
  while (entries > 0) {
    const here = load<f64>(heap);
    const node = load<i32>(heap + 8);
    const y = load<i32>(heap + 12);
    pop();
    if (here > load<f64>(costs + ((<usize>node) << 3))) continue;
    const x = node - y * across;
    if (y === rows && (to < 0 || to === x)) return node;
    const row = y < length ? y : y - length;
    // The row past the last one is the first again.
    const inRow = (row === length ? 0 : row) * width;
    if (y !== rows) relax(node + across, y + 1, here + price(upright, inRow + x), node, costs, from, allowed);
    if (y !== 0) {
      const above = (row === 0 ? length - 1 : row - 1) * width;
      relax(node - across, y - 1, here + price(upright, above + x), node, costs, from, allowed);
    }
    if (x < high) relax(node + 1, y, here + price(level, inRow + x), node, costs, from, allowed);
    if (x > low) relax(node - 1, y, here + price(level, inRow + x - 1), node, costs, from, allowed);
  }
  return -1;
}
