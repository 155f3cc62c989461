import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** Texts of data up to this length stand for themselves; longer ones for their hash. */
const SHORT = 64;

const hashed = (text: string): string => bytesToHex(sha256(utf8ToBytes(text))).slice(0, 32);

/** Texts of objects that were seen before. Data is never changed in place, so an object's text never changes. */
const known = new WeakMap<object, string>();

const shortOf = (text: string): string => (text.length <= SHORT ? text : `#${hashed(text)}`);

/** A place, a colour: so small that to look it up takes as long as to write it. */
const isTuple = (value: object): boolean =>
  Array.isArray(value) && value.length <= 4 && value.every(Number.isFinite);

function textOf(value: unknown): string {
  if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null';
  if (isTuple(value)) return shortOf(`[${(value as number[]).join()}]`);
  const kept = known.get(value);
  if (kept !== undefined) return kept;
  const text = Array.isArray(value)
    ? `[${value.map(textOf).join()}]`
    : `{${Object.keys(value)
        .filter((key) => (value as Record<string, unknown>)[key] !== undefined)
        .sort()
        .map((key) => `${JSON.stringify(key)}:${textOf((value as Record<string, unknown>)[key])}`)
        .join()}}`;
  const short = shortOf(text);
  known.set(value, short);
  return short;
}

/**
 * A key of JSON data: the same for equal data, whatever the order of its keys. Every object and array within is hashed
 * once and then known by its identity, so that a key of data which shares most of its parts with earlier data costs little.
 * Data must not be changed in place.
 */
export const keyOf = (value: unknown): string => hashed(textOf(value));
