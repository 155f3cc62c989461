import { Problem } from '@zesty-tile/core';
import type { Context } from 'hono';
import { HTTPException } from 'hono/http-exception';
import type { ContentfulStatusCode } from 'hono/utils/http-status';

const STATUS: Record<string, ContentfulStatusCode> = {
  gone: 400,
  unauthorised: 401,
  foreign: 403,
  not_found: 404,
  conflict: 409,
  not_ready: 409,
  source_gone: 410,
  file_too_large: 413,
  body_too_large: 413,
  too_many_pixels: 413,
  too_many_streams: 429,
  busy: 503,
  queue_away: 503,
  too_many_files: 503,
  locked: 503,
  no_database: 503,
  disk_full: 507,
  read_only: 507,
};

/** The longest text of an answer that reports an error, in characters. */
const LONGEST = 600;

export const notFound = (what: string): Problem =>
  new Problem('not_found', `There is no such ${what}.`, 'It may have been removed; go back to the Yard.');

const gone = () => new Problem('gone', 'The request was cut off.', 'Send it again.');
const diskFull = () =>
  new Problem(
    'disk_full',
    'The disk is full; nothing was changed.',
    'Make room on the disk of the data folder and try again.',
  );
const readOnly = () =>
  new Problem(
    'read_only',
    'The data folder can only be read; nothing was changed.',
    'Make its disk writable and try again.',
  );
const tooManyFiles = () =>
  new Problem(
    'too_many_files',
    'The system allows no more open files; nothing was changed.',
    'Wait a moment and try again; end other programs, or raise the limit on open files.',
  );
const locked = () =>
  new Problem(
    'locked',
    'Another program holds the database; nothing was changed.',
    'Close that program and try again.',
  );
const noDatabase = () =>
  new Problem(
    'no_database',
    'The database cannot be opened; nothing was changed.',
    'See that the data folder is there, and that the system allows more open files.',
  );
const diskError = () =>
  new Problem(
    'disk_error',
    'The disk reported an error; nothing was changed.',
    'Check the disk of the data folder, then try again.',
  );
const unusableName = () =>
  new Problem('bad_name', 'A name cannot be used on this disk.', 'Use a shorter name in plain characters.');

/** What the system or the database means by the code of an error. */
const MEANINGS: Record<string, () => Problem> = {
  ENOSPC: diskFull,
  EDQUOT: diskFull,
  SQLITE_FULL: diskFull,
  EROFS: readOnly,
  SQLITE_READONLY: readOnly,
  EMFILE: tooManyFiles,
  ENFILE: tooManyFiles,
  SQLITE_CANTOPEN: noDatabase,
  SQLITE_BUSY: locked,
  SQLITE_LOCKED: locked,
  EIO: diskError,
  SQLITE_IOERR: diskError,
  SQLITE_CORRUPT: diskError,
  SQLITE_NOTADB: diskError,
  ENAMETOOLONG: unusableName,
  ERR_INVALID_ARG_VALUE: unusableName,
};

/** An error and everything it was caused by. */
function* causesOf(error: unknown): Generator<NodeJS.ErrnoException> {
  for (let at = error, depth = 0; at instanceof Error && depth < 8; at = at.cause, depth++) yield at;
}

/** The plain-words form of whatever went wrong; null where there is none. */
export function problemOf(error: unknown): Problem | null {
  for (const cause of causesOf(error)) {
    if (cause instanceof Problem) return cause;
    const code = cause.code ?? '';
    // Extended codes of the database begin with the plain one: SQLITE_IOERR_WRITE.
    const plain = /^SQLITE_[A-Z]+/.exec(code)?.[0] ?? code;
    if (plain === 'SQLITE_IOERR' && /disk.*full|ENOSPC|_WRITE|_SHMSIZE/i.test(`${code} ${cause.message}`))
      return diskFull();
    if (Object.hasOwn(MEANINGS, plain)) return MEANINGS[plain]();
  }
  return null;
}

/** An error as it may be logged: what a query was asked with is not for a log. */
export function loggable(error: unknown): unknown {
  const last = [...causesOf(error)].at(-1);
  if (!(error instanceof Error) || !/^Failed query/.test(error.message)) return error;
  const plain = new Error(`A query failed: ${last === error ? 'for an unknown reason' : last?.message}`);
  plain.stack = error.stack?.replace(error.message, plain.message);
  return plain;
}

const cut = (text: string) => (text.length > LONGEST ? `${text.slice(0, LONGEST - 1)}…` : text);

/** Answers every error as `{ error: { code, message, hint, field? } }`. */
export function answerError(error: Error, c: Context, log: (error: unknown) => void) {
  // A browser may keep a 410 otherwise, and not ask again when all is well.
  c.header('Cache-Control', 'no-store');
  if (error instanceof HTTPException && error.status < 500) {
    const message = cut(error.message || 'The request cannot be read.');
    return c.json({ error: { code: 'bad_request', message, hint: 'Check what was sent.' } }, error.status);
  }
  const problem = c.req.raw.signal.aborted ? gone() : problemOf(error);
  if (!problem) {
    log(loggable(error));
    const message = 'The server failed at this request; everything saved is safe.';
    return c.json(
      { error: { code: 'internal', message, hint: 'Try again; the server log has details.' } },
      500,
    );
  }
  const { code, message, hint, field } = problem;
  const body = { code, message: cut(message), hint: cut(hint), field: field && cut(field) };
  return c.json({ error: body }, STATUS[code] ?? 422);
}
