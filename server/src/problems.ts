import { Problem } from '@zesty-tile/core';
import type { Context } from 'hono';
import { HTTPException } from 'hono/http-exception';
import type { ContentfulStatusCode } from 'hono/utils/http-status';

const STATUS: Record<string, ContentfulStatusCode> = {
  not_found: 404,
  conflict: 409,
  not_ready: 409,
  source_gone: 410,
  file_too_large: 413,
  too_many_pixels: 413,
  foreign: 403,
  disk_full: 507,
};

export const notFound = (what: string): Problem =>
  new Problem('not_found', `There is no such ${what}.`, 'It may have been removed; go back to the Yard.');

/** The plain-words form of whatever went wrong. */
export function problemOf(error: unknown): Problem | null {
  if (error instanceof Problem) return error;
  const code = (error as NodeJS.ErrnoException | null)?.code;
  if (code === 'ENOSPC' || code === 'EDQUOT') {
    return new Problem(
      'disk_full',
      'The disk is full; nothing was changed.',
      'Make room in the data folder’s disk and try again.',
    );
  }
  return null;
}

/** Answers every error as `{ error: { code, message, hint, field? } }`. */
export function answerError(error: Error, c: Context, log: (error: Error) => void) {
  // A browser may keep a 410 otherwise, and not ask again when all is well.
  c.header('Cache-Control', 'no-store');
  if (error instanceof HTTPException && error.status < 500) {
    const message = error.message || 'The request cannot be read.';
    return c.json({ error: { code: 'bad_request', message, hint: 'Check what was sent.' } }, error.status);
  }
  const problem = problemOf(error);
  if (!problem) {
    log(error);
    const message = 'The server met an error of its own; what was saved is safe.';
    return c.json({ error: { code: 'internal', message, hint: 'Try again; its log says more.' } }, 500);
  }
  const { code, message, hint, field } = problem;
  return c.json({ error: { code, message, hint, field } }, STATUS[code] ?? 422);
}
