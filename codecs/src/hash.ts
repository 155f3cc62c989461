import { createHash } from 'node:crypto';

/** SHA-256 of bytes, 64 hex digits. */
export const sha256Of = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
