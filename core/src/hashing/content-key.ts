import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { stableJson } from './stable-json.ts';

/** SHA-256 of the stable JSON of `value`, the first 32 hex digits. */
export function contentKey(value: unknown): string {
  return bytesToHex(sha256(utf8ToBytes(stableJson(value)))).slice(0, 32);
}
