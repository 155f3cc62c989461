import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** JSON with sorted keys, so that equal data gives equal text. */
export function stableJson(value: unknown): string {
  return JSON.stringify(value, (_key, v) =>
    v && typeof v === 'object' && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  );
}

/** SHA-256 of the stable JSON of `value`, the first 32 hex digits. */
export function contentKey(value: unknown): string {
  return bytesToHex(sha256(utf8ToBytes(stableJson(value)))).slice(0, 32);
}
