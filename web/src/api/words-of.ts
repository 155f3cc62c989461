import { ApiError } from './client.ts';

/** The words of whatever went wrong. */
export const wordsOf = (error: unknown): string =>
  error instanceof ApiError
    ? `${error.message} ${error.hint}`
    : error instanceof Error
      ? error.message
      : String(error);
