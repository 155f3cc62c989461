import { crc32 } from 'node:zlib';
import type { Random } from './trial.ts';

type Mutation = (bytes: Uint8Array, random: Random) => Uint8Array;

/** Values that break programs which trust a length. */
const EXTREMES = [0, 1, 0x7f, 0x80, 0xff, 0x7fff, 0x8000, 0xffff, 0x7fffffff, 0x80000000, 0xffffffff];

/** The part of a file that most formats begin with, in bytes. */
const HEADER_BYTES = 400;

const flipBits: Mutation = (bytes, random) => {
  const out = bytes.slice();
  for (let k = 1 + random.below(16); k > 0; k--) out[random.below(out.length)] ^= 1 << random.below(8);
  return out;
};

const cut: Mutation = (bytes, random) => bytes.slice(0, random.below(bytes.length));

/** Overwrites two or four bytes, in either order, with an extreme value. */
const lengths: Mutation = (bytes, random) => {
  const out = bytes.slice();
  const view = new DataView(out.buffer);
  for (let k = 1 + random.below(3); k > 0; k--) {
    const value = random.pick(EXTREMES);
    const isLittle = random.below(2) === 0;
    // Most lengths that decide how the rest is read are in the header.
    const end = random.below(2) === 0 ? Math.min(HEADER_BYTES, out.length) : out.length;
    if (random.below(2) === 0) view.setUint16(random.below(end - 1), value & 0xffff, isLittle);
    else view.setUint32(random.below(end - 3), value, isLittle);
  }
  return out;
};

/** Repeats, removes or moves a range. */
const splice: Mutation = (bytes, random) => {
  const from = random.below(bytes.length);
  const part = bytes.slice(from, from + 1 + random.below(200));
  const rest = new Uint8Array([...bytes.subarray(0, from), ...bytes.subarray(from + part.length)]);
  const kind = random.below(3);
  if (kind === 0) return rest;
  const whole = kind === 1 ? bytes : rest;
  const to = random.below(whole.length + 1);
  return new Uint8Array([...whole.subarray(0, to), ...part, ...whole.subarray(to)]);
};

/** Random bytes in the header, the signature left as it is in most cases. */
const header: Mutation = (bytes, random) => {
  const out = bytes.slice();
  const from = random.pick([0, 4, 8]);
  // At times all changes lie within a few bytes: the flags that say how all else is read.
  const length = random.pick([8, 120, HEADER_BYTES]);
  for (let k = 1 + random.below(12); k > 0; k--) {
    out[from + random.below(Math.min(length, out.length - from))] = random.below(256);
  }
  return out;
};

const MUTATIONS = {
  'bit flips': flipBits,
  cuts: cut,
  'length fields': lengths,
  splices: splice,
  headers: header,
};

export type MutationName = keyof typeof MUTATIONS;

/** A PNG whose chunks have right check sums again, so that what was changed reaches the decoder. */
function withCheckSums(bytes: Uint8Array): Uint8Array {
  const out = bytes.slice();
  const view = new DataView(out.buffer);
  for (let at = 8; at + 12 <= out.length; ) {
    const end = at + 8 + view.getUint32(at);
    if (end + 4 > out.length) break;
    view.setUint32(end, crc32(out.subarray(at + 4, end)));
    at = end + 4;
  }
  return out;
}

/** A file changed in a random way, and how. */
export function mutated(
  name: string,
  bytes: Uint8Array,
  random: Random,
): { how: MutationName; bytes: Uint8Array } {
  const how = random.pick(Object.keys(MUTATIONS) as MutationName[]);
  const changed = MUTATIONS[how](bytes, random);
  return { how, bytes: name.endsWith('.png') && random.below(2) === 0 ? withCheckSums(changed) : changed };
}
